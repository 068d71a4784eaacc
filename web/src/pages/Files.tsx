import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Screen } from "../api/client";
import type { Bench } from "../recipe/useRecipe";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Switcher } from "../ui/Choice";
import { cutList, seamList } from "../ui/pattern";
import { paperSize, pdfQuery } from "../ui/preferences";
import { Rows } from "../ui/Rows";
import { useStudio } from "../ui/studio";
import { Plotter } from "./Plotter";
import { AS_USUAL, type Printing, PrintingChoices, query } from "./PrintingChoices";

/** The pattern as files, the cut list, and the seams as they walked. */
export function Files({
  screen,
  commissionId,
  bench,
}: {
  screen: Screen;
  commissionId: number;
  bench: Bench;
}) {
  /** Which version's files were asked for although it is not what is on the bench. */
  const [asked, setAsked] = useState<number | null>(null);
  const { kept, isKept } = bench;
  const older = !isKept && asked !== kept.version;
  const paper = paperSize.use();
  const [printing, setPrinting] = useState<Printing>(AS_USUAL);
  /** Whether she has said that her name and measures may go out with the rest. */
  const [named, setNamed] = useState(false);
  const [plotter, setPlotter] = useState(false);
  const devices = useStudio()?.devices ?? false;
  const names = useQuery({
    queryKey: ["files"],
    queryFn: () => answer(api.GET("/api/files")),
    staleTime: Infinity,
  });
  return (
    <section id="part-pattern" aria-label={text.files} className="px-6 py-2">
      <h3 className="mb-1 font-title text-lg">{text.files}</h3>
      {!screen.ready && <p className="mb-2 text-thread">{text.notReady}</p>}
      <div className="no-print mb-2 flex items-center gap-3">
        <span>{text.paper}</span>
        <Switcher
          label={text.paper}
          value={paper}
          choices={[
            { value: "a4", text: text.paperSizes.a4 },
            { value: "letter", text: text.paperSizes.letter },
          ]}
          onChoose={(next) => paperSize.write(next === "letter" ? "letter" : "a4")}
        />
      </div>
      <PrintingChoices
        pieces={screen.sheet.pieces.map((piece) => piece.name)}
        versions={kept.version}
        chosen={printing}
        onChoose={setPrinting}
      />
      {!isKept && (
        <div role="alert" className="mb-2 border-l-4 border-thread bg-mend px-3 py-1.5">
          <p>{text.notInFiles(kept.version)}</p>
          {older ? (
            <Button className="no-print mt-1" onClick={() => setAsked(kept.version)}>
              {text.filesOf(kept.version)}
            </Button>
          ) : (
            <p className="font-semibold">{text.filesOf(kept.version)}</p>
          )}
        </div>
      )}
      <ul className={`no-print mb-3 ${older ? "hidden" : ""}`} aria-label={text.files}>
        {names.data?.map((name) => (
          <li key={name}>
            <a
              href={`/api/commissions/${commissionId}/files/${name}?${query(printing, paper, kept.version, bench.draft.unit)}${name === "pattern.zip" ? `&with_person=${named}` : ""}`}
              download={name}
              className="inline-block min-h-7 underline underline-offset-4 hover:bg-lining"
            >
              {text.fileNames[name] ?? name}
            </a>
            {name === "pattern.zip" && (
              <label className="ml-3 inline-flex items-center gap-2 text-pencil">
                <input
                  type="checkbox"
                  checked={named}
                  onChange={(event) => setNamed(event.target.checked)}
                  className="size-4 accent-ink"
                />
                {text.withPerson}
              </label>
            )}
          </li>
        ))}
      </ul>
      <p className="no-print mb-3">
        <a
          href={`/api/commissions/${commissionId}/client-page.pdf?${pdfQuery(screen.unit)}`}
          download
          className="inline-block min-h-7 underline underline-offset-4 hover:bg-lining"
        >
          {text.clientPage}
        </a>
      </p>
      {devices && (
        <Button className="no-print mb-3" onClick={() => setPlotter(true)}>
          {text.plotter.open}
        </Button>
      )}
      {plotter && <Plotter commission={commissionId} onClose={() => setPlotter(false)} />}
      <Rows caption={text.cutList} rows={cutList(screen)} />
      <Rows caption={text.seams} rows={seamList(screen)} />
      <p className="mt-2 text-sm text-pencil">{text.cutWith}</p>
      <Button className="no-print mt-2" onClick={() => window.print()}>
        {text.print}
      </Button>
    </section>
  );
}
