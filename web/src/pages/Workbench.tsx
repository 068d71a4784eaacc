import { useQuery } from "@tanstack/react-query";
import { History, Redo2, Undo2 } from "lucide-react";
import { Fragment, useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api, type Commission, type Screen, type SentencePart, type Stage } from "../api/client";
import { OwnBlock } from "../block/OwnBlock";
import { FigureTable } from "../figure/FigureTable";
import { JoinRibbon } from "../join/JoinRibbon";
import { KeptSteps } from "../recipe/KeptSteps";
import { AddTo, AllowanceSet, KindOf, ListTools } from "../recipe/Kinds";
import { Notices, SavedMark } from "../recipe/Notices";
import { LooseProblems, Sentences } from "../recipe/Sentences";
import { type Bench, useRecipe } from "../recipe/useRecipe";
import { type Looked, Versions } from "../recipe/Versions";
import { DraftPlayer } from "../sheet/DraftPlayer";
import { SchoolsCompared } from "../sheet/SchoolsCompared";
import { Sheet } from "../sheet/Sheet";
import { text } from "../text";
import { Boundary } from "../ui/Boundary";
import { Button } from "../ui/Button";
import { UnitSwitch } from "../ui/Choice";
import { preferredUnit, useKeys } from "../ui/preferences";
import { Margin } from "../workings/Margin";
import { Files } from "./Files";

type Table = "sheet" | "draft" | "schools" | "figure";

const STAGES = Object.keys(text.stages) as Stage[];

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
  const [stage, setStage] = useState<Stage>("figure");
  const [asked, setAsked] = useState<number | null>(null);
  const [fitKey, setFitKey] = useState(0);
  const [table, setTable] = useState<Table>("sheet");
  const [lit, setLit] = useState<SentencePart["acts_on"]>([]);
  const go = useNavigate();

  const visit = (next: Stage) => {
    setStage(next);
    const part = document.getElementById(`part-${next}`);
    part?.scrollIntoView({ block: "start" });
    const first = part?.querySelector("[data-word]") ?? part?.querySelector("a");
    if (first instanceof HTMLElement) first.focus({ preventScroll: true });
  };
  /** Go to a word by its place in the recipe: a measure on its table, any other where it stands in its sentence. */
  const find = (path: string) => {
    const spoken = document.querySelector(`[data-word="${CSS.escape(path)}"]`) !== null;
    if (!spoken && /^figure\.(measures|second)\./.test(path)) setTable("figure");
    const look = (frames: number) => {
      const word = document.querySelector(
        `[data-word="${CSS.escape(path)}"], [data-measure="${CSS.escape(path.replace("figure.", ""))}"]`,
      );
      word?.scrollIntoView({ block: "center" });
      if (word instanceof HTMLElement) word.focus({ preventScroll: true });
      else if (frames > 0) requestAnimationFrame(() => look(frames - 1)); // its table is only being laid out
    };
    look(120);
  };
  const otherUnit = () => bench.change({ unit: bench.draft.unit === "cm" ? "in" : "cm" });
  useKeys({
    u: otherUnit,
    z: (event) => (event.shiftKey ? bench.redo() : bench.undo()),
    d: () => go("/"),
    v: () => setVersions(true),
    f: () => setFitKey((key) => key + 1),
    ...Object.fromEntries(STAGES.map((name, index) => [String(index + 1), () => visit(name)])),
  });
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
      <div className="flex flex-wrap items-center gap-x-5 border-b border-chalk px-5 py-1.5">
        <h1 className="font-title text-2xl leading-none">{commission.title}</h1>
        <p className="text-pencil">{commission.person.name}</p>
        <WayThrough screen={screen} stage={stage} onVisit={visit} />
        <div className="no-print ml-auto flex items-center gap-2">
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
          <UnitSwitch
            value={bench.draft.unit === "in" ? "in" : "cm"}
            onChoose={(unit) => bench.change({ unit })}
          />
        </div>
      </div>
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
        className="print-flow grid min-h-0 flex-1 grid-cols-[minmax(17rem,22rem)_minmax(0,1fr)_minmax(15rem,19rem)]"
      >
        <Boundary>
          <Parts screen={screen} bench={bench} commission={commission} onTable={setTable} onLight={setLit} />
        </Boundary>
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
          ) : screen.sheet.pieces.length === 0 ? (
            <Beginning onMeasure={() => setTable("figure")} />
          ) : (
            <Sheet sheet={screen.sheet} unit={screen.unit} fitKey={fitKey} about={lit} />
          )}
        </Boundary>
        <Boundary>
          <Margin
            screen={screen}
            asked={asked}
            onAsk={setAsked}
            onTake={(remedy) => bench.change(remedy.changes)}
          />
        </Boundary>
      </div>
      <Boundary>
        <JoinRibbon
          joins={screen.joins}
          drawn={screen.sheet.pieces.length > 0}
          onWhy={setAsked}
          onTake={(remedy) => bench.change(remedy.changes)}
          onPreview={(remedy) => bench.preview(remedy.changes).then((made) => made.joins)}
        />
      </Boundary>
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

function Parts({
  screen,
  bench,
  commission,
  onTable,
  onLight,
}: {
  screen: Screen;
  bench: Bench;
  commission: Commission;
  onTable: (table: Table) => void;
  onLight: (edges: SentencePart["acts_on"]) => void;
}) {
  return (
    <div className="print-flow min-h-0 overflow-auto border-r border-chalk">
      <LooseProblems bench={bench} />
      {screen.sentences.flatMap((part, place) => {
        const sentences = (
          <Sentences key={part.where} part={part} bench={bench} onLight={onLight}>
            {part.where === "figure" && (
              <Button className="no-print" onClick={() => onTable("figure")}>
                {text.measure}
              </Button>
            )}
            {part.where === "lower" && (
              <KindOf
                label={text.lowerBy}
                where="lower"
                choices={screen.lowers}
                screen={screen}
                bench={bench}
              />
            )}
            {part.where === "band" && (
              <KindOf label={text.bandBy} where="band" choices={screen.bands} screen={screen} bench={bench} />
            )}
            {part.where === "allowances" && <AllowanceSet screen={screen} bench={bench} />}
            {/^(steps|trims)\./.test(part.where) && (
              <ListTools where={part.where} title={part.title} bench={bench} />
            )}
            {part.where === "bodice" && <BodiceKind screen={screen} bench={bench} onTable={onTable} />}
          </Sentences>
        );
        const isLast =
          /^(bodice|steps\.\d+)$/.test(part.where) &&
          !screen.sentences[place + 1]?.where.startsWith("steps.");
        if (!isLast) return [sentences];
        // keyed beside the sentences, not within the last: what is half chosen stays when a step comes in above it
        return [
          sentences,
          <Fragment key="to the pieces">
            <AddTo list="steps" screen={screen} bench={bench} />
            <KeptSteps bench={bench} />
          </Fragment>,
        ];
      })}
      <AddTo list="trims" screen={screen} bench={bench} />
      <Files screen={screen} commissionId={commission.id} bench={bench} />
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

/** Which school the bodice is drafted by, and the draft played. */
function BodiceKind({
  screen,
  bench,
  onTable,
}: {
  screen: Screen;
  bench: Bench;
  onTable: (table: Table) => void;
}) {
  const kind = String((screen.recipe.bodice as Record<string, unknown>).kind);
  const [bringing, setBringing] = useState(false);
  return (
    <div className="no-print flex flex-wrap items-center gap-2">
      <select
        aria-label={text.bodiceBy}
        value={kind}
        onChange={(event) => {
          const chosen = screen.bodices.find((choice) => choice.kind === event.target.value);
          if (chosen) bench.change({ bodice: chosen.bodice });
        }}
        className="min-h-8 rounded-sm border border-pencil bg-paper px-1.5"
      >
        {screen.bodices.map((choice) => (
          <option key={choice.kind} value={choice.kind}>
            {choice.title}
          </option>
        ))}
      </select>
      <Button onClick={() => setBringing(true)}>{text.bringIn}</Button>
      <OwnBlock
        open={bringing}
        unit={screen.unit}
        onOpenChange={setBringing}
        onTake={(bodice) => bench.change({ bodice })}
      />
      {screen.draft && (
        <>
          <Button onClick={() => onTable("draft")}>{text.play}</Button>
          <Button onClick={() => onTable("schools")}>{text.compare}</Button>
        </>
      )}
    </div>
  );
}

/** The way through the job: every stage in the order of the trade, and where something is unresolved. */
function WayThrough({
  screen,
  stage,
  onVisit,
}: {
  screen: Screen;
  stage: Stage;
  onVisit: (stage: Stage) => void;
}) {
  return (
    <nav aria-label={text.way} className="no-print">
      <ol className="flex items-center">
        {STAGES.map((name, index) => {
          const open = screen.findings.filter(
            (finding) => finding.severity !== "note" && finding.stage === name,
          ).length;
          return (
            <li key={name} className="flex items-center">
              {index > 0 && <span aria-hidden className="w-4 border-t-2 border-dashed border-chalk" />}
              <button
                type="button"
                aria-current={stage === name ? "step" : undefined}
                onClick={() => onVisit(name)}
                className="min-h-8 rounded-sm px-2 hover:bg-lining aria-[current=step]:bg-lining"
              >
                {text.stages[name]}
                {open > 0 && (
                  <span className="ml-1.5 font-bold text-thread">
                    <span aria-hidden>✕ {open}</span>
                    <span className="sr-only">, {text.open(open)}</span>
                  </span>
                )}
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
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
