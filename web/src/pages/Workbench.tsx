import { useQuery } from "@tanstack/react-query";
import { History, Redo2, Undo2 } from "lucide-react";
import { type ReactNode, useCallback, useEffect, useMemo, useState } from "react";
import { createPortal } from "react-dom";
import { Link, useNavigate, useOutletContext, useParams } from "react-router";
import { answer, api, type Commission, type Screen, type SentencePart, type Stage } from "../api/client";
import { Lays } from "../cloth/Lays";
import { ClientPicture } from "../dress/ClientPicture";
import { Dress, type Touched } from "../dress/Dress";
import { FigureTable } from "../figure/FigureTable";
import { FittingLog } from "../fittings/FittingLog";
import { HangRoom, type HungPaper, makeReady } from "../hang/HangRoom";
import { JoinRibbon } from "../join/JoinRibbon";
import { LaidTogether } from "../join/LaidTogether";
import { MakingPlan } from "../making/MakingPlan";
import { Notices, SavedMark } from "../recipe/Notices";
import { LooseProblems } from "../recipe/Sentences";
import { useRecipe } from "../recipe/useRecipe";
import { type Looked, Versions } from "../recipe/Versions";
import { STAGES, stageOf, Way } from "../recipe/Way";
import { DraftPlayer } from "../sheet/DraftPlayer";
import { SchoolsCompared } from "../sheet/SchoolsCompared";
import { litEdges, Sheet } from "../sheet/Sheet";
import { text } from "../text";
import { Boundary } from "../ui/Boundary";
import { Button } from "../ui/Button";
import { UnitSwitch } from "../ui/Choice";
import { dayAndMonth } from "../ui/day";
import { preferredUnit, useKeys } from "../ui/preferences";
import { opened } from "../ui/recent";
import { Margin } from "../workings/Margin";
import { Printed } from "./Printed";
import { type Said, SaidOf } from "./SaidOf";
import { StageParts, type Table } from "./StageParts";
import { Walk } from "./Walk";

/** What takes the whole wall. */
/** The tables that are the whole of a stage. */
const OF_STAGE: Table[] = ["making", "fittings"];
const WIDE: Table[] = ["draft", "schools", "figure", "lays", "hang", "making"];

/** A commission opened: fetched once, then worked on. */
export function CommissionPage() {
  const id = Number(useParams().id);
  const opened = useQuery({
    queryKey: ["commission", id],
    queryFn: () =>
      answer(api.GET("/api/commissions/{commission_id}", { params: { path: { commission_id: id } } })),
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
    retry: false,
  });
  if (opened.isError) {
    return (
      <main className="p-10">
        <p className="mb-4 text-xl">{text.away}</p>
        <Link to="/" className="underline">
          {text.backToDesk}
        </Link>
      </main>
    );
  }
  if (!opened.data) return <main className="p-10 text-pencil">{text.loading}</main>;
  return <Workbench key={id} commission={opened.data} />;
}

function Workbench({ commission }: { commission: Commission }) {
  const bench = useRecipe(commission.id, commission);
  const [looked, setLooked] = useState<Looked | null>(null);
  const [versions, setVersions] = useState(false);
  const screen = looked?.screen ?? bench.screen;
  const [visited, setStage] = useState<Stage | null>(null);
  /** Where nothing is drawn yet the bodice comes first. */
  const stage = visited ?? (screen && screen.sheet.pieces.length === 0 ? "bodice" : "lower");
  const [asked, setAsked] = useState<number | null>(null);
  const [fitKey, setFitKey] = useState(0);
  const [table, setTable] = useState<Table>("sheet");
  /** What of the dress that hangs is printed with it. */
  const [hung, setHung] = useState<HungPaper | null>(null);
  const [lit, setLit] = useState<SentencePart["acts_on"]>([]);
  const [touched, setTouchedAt] = useState<Touched | null>(null);
  const setTouched = useCallback(
    (next: Touched | null) =>
      setTouchedAt((now) => (now?.piece === next?.piece && now?.edge === next?.edge ? now : next)),
    [],
  );
  const [seam, setSeam] = useState("");
  const [laid, setLaid] = useState("");
  /** What a way out would make, while it is only looked at. */
  const [tried, setTried] = useState<Screen | null>(null);
  const go = useNavigate();
  const head = useOutletContext<HTMLElement | null>();
  const [said, setSaid] = useState<Said>(commission);
  const [saying, setSaying] = useState(false);
  useEffect(() => opened(commission.id), [commission.id]);

  const visit = (next: Stage) => {
    setStage(next);
    setTried(null);
    setTable(
      (now) => OF_STAGE.find((one) => one === next) ?? (OF_STAGE.some((one) => one === now) ? "sheet" : now),
    );
    const held = document.activeElement;
    requestAnimationFrame(() => {
      const body = document.getElementById(`stage-${next}`);
      body?.scrollIntoView({ block: "start" });
      if (document.activeElement !== held && document.activeElement !== document.body) return; // she is on already
      const words = [...(body?.querySelectorAll<HTMLElement>("[data-word], a") ?? [])];
      words.find((word) => word.offsetParent !== null)?.focus({ preventScroll: true });
    });
  };
  /** Go to a word by its place in the recipe: a measure on its table, any other where it stands in its sentence. */
  const find = (path: string) => {
    const spoken = screen?.sentences.some((part) =>
      part.lines.flat().some((token) => typeof token !== "string" && token.path === path),
    );
    if (!spoken && /^figure\.(measures|second)\./.test(path)) setTable("figure");
    setStage(stageOf(path));
    const look = (frames: number) => {
      const word = document.querySelector<HTMLElement>(
        `[data-word="${CSS.escape(path)}"], [data-measure="${CSS.escape(path.replace("figure.", ""))}"]`,
      );
      const waiting = word
        ?.closest("section")
        ?.querySelector<HTMLElement>('[data-more][aria-expanded="false"]');
      if (word && word.offsetParent === null) waiting?.click();
      if (word && word.offsetParent !== null) {
        word.scrollIntoView({ block: "center" });
        word.focus({ preventScroll: true });
      } else if (frames > 0) requestAnimationFrame(() => look(frames - 1)); // its table is only being laid out
    };
    look(120);
  };
  const ask = (working: number | null) => {
    setAsked(working);
    if (working !== null) setTable("workings");
  };
  const otherUnit = () => bench.change({ unit: bench.draft.unit === "cm" ? "in" : "cm" });
  useKeys({
    u: otherUnit,
    z: (event) => (event.shiftKey ? bench.redo() : bench.undo()),
    d: () => go("/"),
    v: () => setVersions(true),
    f: () => setFitKey((key) => key + 1),
    w: () => setTable((now) => (now === "workings" ? "sheet" : "workings")),
    ...Object.fromEntries(STAGES.map((name, index) => [String(index + 1), () => visit(name)])),
  });
  const about = useMemo(() => {
    const edges = screen ? litEdges(screen.sheet.pieces, touched) : new Set<string>();
    for (const [piece, edge] of lit) edges.add(`${piece}/${edge}`);
    return edges;
  }, [screen, touched, lit]);
  useEffect(() => {
    document.title = `${said.title} · ${text.title}`;
  }, [said.title]);
  useEffect(() => preferredUnit.write(bench.draft.unit === "in" ? "in" : "cm"), [bench.draft.unit]);

  if (!screen) {
    return (
      <main className="flex-1">
        <Notices bench={bench} unreadable={commission.unreadable} />
        <p className="p-10 text-pencil">
          {commission.unreadable ? (
            <UnreadableWays commission={commission.id} onVersions={() => setVersions(true)} />
          ) : bench.saving.state === "lost" ? (
            bench.saving.why || text.lost
          ) : (
            text.loading
          )}
        </p>
        <Versions
          open={versions}
          onOpenChange={setVersions}
          commission={commission.id}
          bench={bench}
          onLook={setLooked}
        />
      </main>
    );
  }
  return (
    <main className="print-flow flex min-h-0 flex-1 flex-col">
      {head &&
        createPortal(
          <>
            <h1 className="font-title text-2xl leading-none">
              <button
                type="button"
                title={text.saidOf.title}
                onClick={() => setSaying(true)}
                className="min-h-8 text-left hover:underline"
              >
                {said.title}
              </button>
            </h1>
            <p className="flex min-w-0 flex-1 basis-0 flex-wrap items-baseline gap-x-1.5 text-[15.5px] text-pencil leading-[1.15] max-[1100px]:hidden">
              <span className="max-w-full truncate">
                {text.forWhom}{" "}
                <Link
                  to={`/people/${said.person.id}`}
                  className="inline-block min-h-6 border-b border-basting"
                >
                  {said.person.name}
                </Link>
                {said.due_on && <span className="max-[1180px]:hidden">,</span>}
              </span>
              {said.due_on && (
                <span className="max-w-full truncate max-[1180px]:hidden">
                  {text.due} {dayAndMonth(said.due_on)}
                </span>
              )}
              {said.occasion && <span className="hidden print:inline">, {said.occasion}</span>}
            </p>
            <div className="no-print ml-auto flex items-center gap-0.5">
              <SavedMark bench={bench} onFind={find} />
              <Button look="quiet" aria-label={text.versions.title} onClick={() => setVersions(true)}>
                <History size={17} />
              </Button>
              <Button look="quiet" aria-label={text.undo} disabled={!bench.canUndo} onClick={bench.undo}>
                <Undo2 size={17} />
              </Button>
              <Button look="quiet" aria-label={text.redo} disabled={!bench.canRedo} onClick={bench.redo}>
                <Redo2 size={17} />
              </Button>
              <Button
                look="quiet"
                aria-pressed={table === "workings"}
                onClick={() => setTable(table === "workings" ? "sheet" : "workings")}
              >
                {text.workingsPage}
              </Button>
              <UnitSwitch
                value={bench.draft.unit === "in" ? "in" : "cm"}
                onChoose={(unit) => bench.change({ unit })}
              />
            </div>
          </>,
          head,
        )}
      <SaidOf row={said} open={saying} onOpenChange={setSaying} onKept={setSaid} />
      <Printed screen={screen} said={said} hung={hung} />
      <Walk />
      <LooseProblems bench={bench} />
      <Notices bench={bench} unreadable={commission.unreadable} />
      {looked && (
        <section
          aria-label={text.versions.looking(looked.version)}
          className="no-print bg-lining px-5 py-1.5"
        >
          <div className="flex flex-wrap items-center gap-3">
            <h2 className="font-semibold">{text.versions.looking(looked.version)}</h2>
            <Button
              onClick={() => {
                bench.replace(looked.recipe);
                setLooked(null);
              }}
            >
              {text.versions.bringBack}
            </Button>
            <Button onClick={() => setLooked(null)}>{text.versions.now}</Button>
          </div>
        </section>
      )}
      <div
        inert={looked !== null}
        className="print-flow grid min-h-0 flex-1 grid-cols-[25.5rem_minmax(0,1fr)] max-[1100px]:grid-cols-[22rem_minmax(0,1fr)] max-[820px]:block max-[820px]:overflow-auto"
      >
        <Boundary>
          <Way
            screen={screen}
            stage={stage}
            refused={bench.problems}
            onVisit={visit}
            onTake={(remedy) => bench.change(remedy.changes)}
          >
            {(name) => (
              <StageParts
                stage={name}
                screen={screen}
                bench={bench}
                commission={commission}
                onTable={setTable}
                onLight={setLit}
                onSeam={setSeam}
              />
            )}
          </Way>
        </Boundary>
        <div className="print-flow flex min-h-0 min-w-0 flex-col max-[820px]:block">
          <Wall wide={WIDE.includes(table)}>
            {screen.dress.views.length > 0 && !WIDE.includes(table) && (
              <Boundary>
                <Dress dress={(tried ?? screen).dress} lit={about} onTouch={setTouched}>
                  <ClientPicture
                    dress={commission.id}
                    features={screen.sentences
                      .filter(
                        (part) => ["bodice", "lower"].includes(stageOf(part.where)) && part.lines.length > 0,
                      )
                      .map((part) => part.title)}
                  >
                    <button
                      type="button"
                      className="mr-5 inline-flex min-h-7 items-center underline underline-offset-2"
                      onPointerEnter={makeReady}
                      onFocus={makeReady}
                      onClick={() => setTable("hang")}
                    >
                      {text.hang.open}
                    </button>
                  </ClientPicture>
                </Dress>
              </Boundary>
            )}
            <Boundary>
              {table === "figure" ? (
                <FigureTable
                  screen={screen}
                  bench={bench}
                  commission={commission}
                  onClose={() => setTable("sheet")}
                />
              ) : screen.draft && table === "draft" ? (
                <DraftPlayer draft={screen.draft} onClose={() => setTable("sheet")} />
              ) : screen.draft && table === "schools" ? (
                <SchoolsCompared screen={screen} onClose={() => setTable("sheet")} />
              ) : table === "lays" ? (
                <Lays
                  commission={commission.id}
                  recipe={screen.recipe}
                  unit={screen.unit}
                  onChange={bench.change}
                  onClose={() => setTable("sheet")}
                />
              ) : table === "hang" ? (
                <HangRoom
                  recipe={screen.recipe}
                  unit={screen.unit}
                  onChange={bench.change}
                  onPaper={setHung}
                  kept={bench.isKept ? { commission: commission.id, version: bench.kept.version } : null}
                  onClose={() => setTable("sheet")}
                />
              ) : table === "making" ? (
                <MakingPlan commission={commission.id} screen={screen} onClose={() => setTable("sheet")} />
              ) : table === "fittings" ? (
                <FittingLog
                  commission={commission}
                  screen={screen}
                  bench={bench}
                  touched={touched}
                  onTried={setTried}
                  onClose={() => setTable("sheet")}
                />
              ) : screen.sheet.pieces.length === 0 ? (
                <Beginning onMeasure={() => setTable("figure")} />
              ) : (
                <>
                  <Sheet
                    sheet={(tried ?? screen).sheet}
                    fitKey={fitKey}
                    about={lit}
                    touched={touched}
                    onTouch={setTouched}
                    shown={table === "sheet"}
                  />
                  <Margin
                    screen={screen}
                    shown={table === "workings"}
                    asked={asked}
                    onAsk={setAsked}
                    onClose={() => setTable("sheet")}
                  />
                </>
              )}
            </Boundary>
          </Wall>
          <Boundary>
            <JoinRibbon
              joins={screen.joins}
              drawn={screen.sheet.pieces.length > 0}
              chosen={seam}
              onChoose={setSeam}
              onWhy={ask}
              onTake={(remedy) => bench.change(remedy.changes)}
              onPreview={(remedy) => bench.preview(remedy.changes)}
              onTried={setTried}
              onLay={setLaid}
            />
          </Boundary>
        </div>
      </div>
      <LaidTogether screen={screen} seam={laid} onClose={() => setLaid("")} />
      <Versions
        open={versions}
        onOpenChange={setVersions}
        commission={commission.id}
        bench={bench}
        onLook={setLooked}
      />
    </main>
  );
}

/** The dress and the sheet side by side; what is measured or played takes the sheet's place. */
function Wall({ wide, children }: { wide: boolean; children: ReactNode }) {
  return (
    <div
      className={`print-flow grid min-h-0 flex-1 ${wide ? "" : "grid-cols-[minmax(0,23.5rem)_minmax(0,1fr)]"} max-[820px]:grid-cols-1 max-[820px]:h-[50rem] max-[820px]:grid-rows-[24rem_minmax(0,1fr)]`}
    >
      {children}
    </div>
  );
}

/** A dress of which nothing is drawn yet: what comes first. */
function Beginning({ onMeasure }: { onMeasure: () => void }) {
  return (
    <section aria-label={text.sheet} className="flex flex-col justify-center bg-linen p-10">
      <h2 className="mb-3 font-title text-2xl">{text.beginning.title}</h2>
      <ol className="mb-4 max-w-xl list-decimal space-y-2 pl-6 text-lg">
        {text.beginning.ways.map((way) => (
          <li key={way}>{way}</li>
        ))}
      </ol>
      <div>
        <Button onClick={onMeasure}>{text.measure}</Button>
      </div>
    </section>
  );
}

/** A recipe this program cannot read: it is kept, and can be taken out or an earlier version brought back. */
function UnreadableWays({ commission, onVersions }: { commission: number; onVersions: () => void }) {
  return (
    <span className="flex flex-wrap items-center gap-3">
      <a href={`/api/commissions/${commission}/files/recipe.json`} download className="underline">
        {text.takeOut}
      </a>
      <Button onClick={onVersions}>{text.versions.title}</Button>
    </span>
  );
}
