import { useEffect, useState } from "react";
import { flushSync } from "react-dom";
import type { Finding, Screen } from "../api/client";
import { Drawing } from "../dress/Dress";
import type { HungPaper } from "../hang/HangRoom";
import { DraftSteps } from "../sheet/DraftPaper";
import { PIXEL, PieceDrawing } from "../sheet/PieceDrawing";
import { text } from "../text";
import { day } from "../ui/day";
import { cutList, seamList } from "../ui/pattern";
import { Rows } from "../ui/Rows";
import type { Said } from "./SaidOf";

/** Whether the page is being laid out for paper: what is printed is made only then. */
function useOnPaper(): boolean {
  const [onPaper, setOnPaper] = useState(false);
  useEffect(() => {
    const media = window.matchMedia("print");
    const begin = () => flushSync(() => setOnPaper(true));
    const end = () => setOnPaper(false);
    const change = () => (media.matches ? begin() : end());
    window.addEventListener("beforeprint", begin);
    window.addEventListener("afterprint", end);
    media.addEventListener("change", change);
    return () => {
      window.removeEventListener("beforeprint", begin);
      window.removeEventListener("afterprint", end);
      media.removeEventListener("change", change);
    };
  }, []);
  return onPaper;
}

/** What fits between the margins of A4 and Letter alike (mm). */
const PAPER = { width: 184, height: 225 };
/** Pieces are printed at one of these, so that a ruler can be laid on them. */
const SCALES = [2, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 60, 80, 100];

/** The dress on paper: its drawing, what it is, what is open, its pieces at a scale, its seams, every sum. */
export function Printed({ screen, said, hung }: { screen: Screen; said: Said; hung: HungPaper | null }) {
  const onPaper = useOnPaper();
  if (!onPaper) return null;
  const { sheet, dress } = screen;
  const scale =
    SCALES.find((one) => sheet.width / one <= PAPER.width && sheet.height / one <= PAPER.height) ?? 200;
  const px = scale * PIXEL;
  return (
    <article data-testid="printed" className="on-paper">
      <header>
        <h1 className="font-title text-3xl">{said.title}</h1>
        <p>
          {text.forWhom} {said.person.name}
          {said.occasion && `, ${said.occasion}`}
          {said.due_on && `, ${text.due} ${day(said.due_on)}`}
        </p>
        <p className="text-sm">{text.printed.on(day(new Date().toISOString()))}</p>
      </header>
      {dress.views.length > 0 && (
        <figure>
          <div className="flex items-end justify-center gap-[6mm]">
            {dress.views.map((view) => (
              <div key={view.seen} className="w-[56mm]">
                <Drawing view={view} className="max-h-[92mm]" />
                <p className="text-center text-sm">{text.dress.seen[view.seen]}</p>
              </div>
            ))}
          </div>
          <figcaption className="mt-1 text-center">
            {dress.levels
              .map(
                (level) =>
                  `${level.name} ${level.girth}${level.name === "hem" ? `, ${level.height} ${text.dress.aboveFloor}` : ""}`,
              )
              .join("; ")}
          </figcaption>
        </figure>
      )}
      {hung && (
        <section>
          <h2>{text.hang.title}</h2>
          <figure className="flex justify-center gap-[6mm]">
            {Object.entries(hung.pictures).map(([side, picture]) => (
              <div key={side} className="w-[56mm]">
                <img
                  src={picture}
                  alt={text.hang.seen(side)}
                  className="max-h-[92mm] w-full object-contain"
                />
                <p className="text-center text-sm">{side}</p>
              </div>
            ))}
          </figure>
          <ul>
            {hung.said.map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </ul>
        </section>
      )}
      <section>
        <h2>{text.printed.open}</h2>
        {screen.findings.length === 0 && <p>{text.nothingOpen}</p>}
        <ul>
          {[...screen.findings].sort(worstFirst).map((finding) => (
            <li key={finding.code + finding.text}>
              {finding.severity !== "note" && <strong>{text.printed.severity[finding.severity]}: </strong>}
              {finding.text}
            </li>
          ))}
        </ul>
      </section>
      <section>
        <h2>{text.printed.recipe}</h2>
        {screen.sentences.map((part) => {
          const lines = part.lines.filter((_, index) => !part.waits[index]);
          if (!lines.length) return null;
          return (
            <p key={part.where}>
              <strong>{part.title}.</strong>{" "}
              {lines
                .map((line) => line.map((token) => (typeof token === "string" ? token : token.text)).join(""))
                .join(" ")}
            </p>
          );
        })}
      </section>
      {sheet.pieces.length > 0 && (
        <figure className="whole">
          <h2>{text.printed.pieces(scale)}</h2>
          <svg
            role="img"
            aria-label={text.sheet}
            style={{ width: `${sheet.width / scale}mm`, height: `${sheet.height / scale}mm` }}
            viewBox={`0 ${-sheet.height} ${sheet.width} ${sheet.height}`}
            overflow="visible"
          >
            {sheet.pieces.map((piece) => (
              <PieceDrawing
                key={piece.name}
                piece={piece}
                px={px}
                lit={NOTHING}
                named={NOTHING}
                onTouch={() => undefined}
              />
            ))}
          </svg>
        </figure>
      )}
      <Rows caption={text.cutList} rows={cutList(screen)} />
      <Rows caption={text.seams} rows={seamList(screen)} />
      <p className="text-sm">{text.cutWith}</p>
      <section>
        <h2>{text.workings}</h2>
        {screen.draft && <DraftSteps draft={screen.draft} />}
        <table className="w-full text-sm">
          <tbody>
            {screen.workings.map((working, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: workings are known by their place
              <tr key={index} className="align-top">
                <th scope="row" className="pr-3 text-left font-normal">
                  {working.topic !== screen.workings[index - 1]?.topic && (
                    <span className="block pt-1 font-semibold">{working.topic}</span>
                  )}
                  {working.label}
                </th>
                <td className="pr-3 align-bottom">
                  {working.line}
                  {working.rule && ` (${working.rule})`}
                </td>
                <td className="text-right align-bottom font-semibold whitespace-nowrap">{working.text}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </article>
  );
}

const WORST = { stop: 0, warn: 1, note: 2 };
const worstFirst = (one: Finding, other: Finding) => WORST[one.severity] - WORST[other.severity];

const NOTHING: Set<string> = new Set();
