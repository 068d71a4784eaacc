import { TriangleAlert } from "lucide-react";
import type { ReactNode } from "react";
import type { Finding, Remedy, Screen, SentencePart, Stage } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";

/** Which parts of the recipe are worked on at which stage. */
const PARTS: Record<Stage, RegExp> = {
  figure: /^figure/,
  bodice: /^(bodice|steps)/,
  lower: /^(band|lower|trims)/,
  join: /^join/,
  pattern: /^(finish|cloths|opening|allowances)/,
  making: /^(?!)/,
  fittings: /^(?!)/,
};

export const STAGES = Object.keys(PARTS) as Stage[];

/** The stage at which a word of the recipe is worked on, by its path. */
export const stageOf = (path: string): Stage => STAGES.find((stage) => PARTS[stage].test(path)) ?? "pattern";

/** A part in a line, as it is spoken when its stage is folded. */
const firstLine = (part: SentencePart | undefined) =>
  (part?.lines[0] ?? []).map((token) => (typeof token === "string" ? token : token.text)).join("");

function spoken(stage: Stage, screen: Screen): string {
  if (stage === "making" || stage === "fittings") return text[stage].folded;
  const parts = screen.sentences.filter((part) => PARTS[stage].test(part.where));
  if (stage === "join") {
    const open = screen.joins.find((join) => !join.meets);
    if (open) return open.sentence;
    return screen.joins.length > 0 ? text.allMeet(screen.joins.length) : text.nothingToMeet;
  }
  const steps = stage === "bodice" ? parts.filter((part) => part.where !== "bodice").length : 0;
  const own = stage === "lower" ? parts.find((part) => part.where === "lower") : parts[0];
  return [firstLine(own), steps > 0 ? text.doneToIt(steps) : ""].join(" ").trim();
}

/** The way through the job: one stage in full, the others folded to a spoken line with what is open in them. */
export function Way({
  screen,
  stage,
  refused,
  onVisit,
  onTake,
  children,
}: {
  screen: Screen;
  stage: Stage;
  /** What was typed and cannot be read, with where. */
  refused: { field: string; text: string }[];
  onVisit: (stage: Stage) => void;
  onTake: (remedy: Remedy) => void;
  /** What a stage holds. */
  children: (stage: Stage) => ReactNode;
}) {
  const troubles = (name: Stage) => [
    ...refused.filter(({ field }) => stageOf(field) === name),
    ...screen.findings.filter((finding) => finding.stage === name && finding.severity !== "note"),
  ];
  return (
    <nav aria-label={text.way} data-walk="way" className="flex min-h-0 flex-col border-r border-chalk">
      <ul
        aria-label={text.stageNames}
        className="hidden border-b border-chalk bg-paper px-1 max-[1100px]:flex max-[1100px]:flex-wrap"
      >
        {STAGES.map((name) => (
          <li key={name}>
            <button
              type="button"
              aria-pressed={name === stage}
              onClick={() => onVisit(name)}
              className={`min-h-11 px-1.5 font-title text-[17px] hover:bg-lining ${name === stage ? "border-b-[3px] border-ink" : "text-pencil"}`}
            >
              {text.stages[name]}
              {troubles(name).length > 0 && (
                <>
                  <TriangleAlert aria-hidden size={15} className="ml-1 inline text-thread" />
                  <span className="sr-only"> {text.open(troubles(name).length)}</span>
                </>
              )}
            </button>
          </li>
        ))}
      </ul>
      <ol className="min-h-0 flex-1 overflow-auto max-[820px]:overflow-visible">
        {STAGES.map((name) => {
          const here = name === stage;
          const findings = screen.findings.filter((finding) => finding.stage === name);
          const open = troubles(name);
          return (
            <li
              key={name}
              id={`stage-${name}`}
              className={`relative border-b border-chalk ${here ? "bg-card" : "max-[1100px]:hidden"}`}
            >
              {here && (
                <span
                  aria-hidden
                  className="no-print absolute left-0 top-4 border-y-[9px] border-l-[11px] border-y-transparent border-l-ink"
                />
              )}
              <h2>
                <button
                  type="button"
                  aria-expanded={here}
                  aria-current={here ? "step" : undefined}
                  onClick={() => onVisit(name)}
                  className="grid min-h-10 w-full grid-cols-[6rem_minmax(0,1fr)] items-baseline gap-x-3 px-6 py-2 text-left hover:bg-lining"
                >
                  <span className={`font-title leading-tight ${here ? "col-span-2 text-[26px]" : "text-lg"}`}>
                    {text.stages[name]}
                  </span>
                  {!here && (
                    <span className="line-clamp-2 text-[15.5px] leading-snug text-pencil">
                      {spoken(name, screen)}
                    </span>
                  )}
                  {!here && open.length > 0 && (
                    <span className="col-start-2 line-clamp-2 text-[15.5px] leading-snug font-semibold text-thread">
                      <TriangleAlert aria-hidden size={15} className="mr-1 inline" />
                      <span className="sr-only">{text.open(open.length)}: </span>
                      {open[0]?.text}
                    </span>
                  )}
                </button>
              </h2>
              {here && (
                <div className="pb-2">
                  {children(name)}
                  <Findings findings={findings} onTake={onTake} />
                </div>
              )}
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

/** What is open at a stage, with its ways out, then what is worth knowing. */
function Findings({ findings, onTake }: { findings: Finding[]; onTake: (remedy: Remedy) => void }) {
  const troubles = findings.filter((finding) => finding.severity !== "note");
  const notes = findings.filter((finding) => finding.severity === "note");
  return (
    <div className="px-6">
      {troubles.length > 0 && (
        <section aria-label={text.attention} className="mt-2">
          {troubles.map((finding) => (
            <FindingNote key={finding.code + finding.text} finding={finding} onTake={onTake} />
          ))}
        </section>
      )}
      {notes.length > 0 && (
        <section aria-label={text.findings} className="mt-2 text-[15.5px]">
          {notes.map((finding) => (
            <FindingNote key={finding.code + finding.text} finding={finding} onTake={onTake} />
          ))}
        </section>
      )}
    </div>
  );
}

function FindingNote({ finding, onTake }: { finding: Finding; onTake: (remedy: Remedy) => void }) {
  const grave = finding.severity !== "note";
  return (
    <div
      data-finding={finding.code}
      className={`mb-2 ${grave ? "border-l-4 border-thread bg-mend py-1 pl-3 pr-2" : "text-pencil"}`}
    >
      <p>
        {grave && <TriangleAlert aria-hidden size={16} className="mr-1 inline text-thread" />}
        {finding.text}
      </p>
      {finding.code !== "waist-does-not-meet" &&
        finding.remedies.map((remedy) => (
          <Button key={remedy.text} className="no-print mr-1 mt-1 text-ink" onClick={() => onTake(remedy)}>
            {remedy.text}
          </Button>
        ))}
    </div>
  );
}
