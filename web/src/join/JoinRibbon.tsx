import { useCallback, useEffect, useRef, useState } from "react";
import type { Join, Remedy, Screen } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";

const WIDTH = 820;
const PAD = 34;
const UPPER = 42;
/** Where the drawing begins, just above the names of the marks. */
const TOP = 18;
/** As far as the lower side's name reaches. */
const NAMED = 170;
const LOWER = 88;
/** Marks closer than this many units would write over each other; the later one keeps its tick and its thread. */
const CROWDED = 62;

/** Every seam of the garment by name: those that join two sections of it, then those inside a section. */
function SeamChoice({
  joins,
  chosen,
  onChoose,
}: {
  joins: Join[];
  chosen: string;
  onChoose: (name: string) => void;
}) {
  const groups = [
    { title: text.joinsBetween, seams: joins.filter((join) => join.between_sections) },
    { title: text.seamsWithin, seams: joins.filter((join) => !join.between_sections) },
  ];
  return (
    <select
      aria-label={text.whichJoin}
      value={chosen}
      onChange={(event) => onChoose(event.target.value)}
      className="min-h-8 w-full rounded-sm border border-pencil bg-paper px-1.5 font-title text-lg"
    >
      {chosen === "" && <option value="">{text.whichJoin}</option>}
      {groups
        .filter((group) => group.seams.length > 0)
        .map((group) => (
          <optgroup key={group.title} label={group.title}>
            {group.seams.map((join) => (
              <option key={join.name} value={join.name}>
                {join.meets ? "" : "✕ "}
                {join.name}
              </option>
            ))}
          </optgroup>
        ))}
    </select>
  );
}

/** The seams of a garment: one ribbon at a time, every other one key or touch away. */
export function JoinRibbon({
  joins,
  drawn,
  chosen,
  onChoose: setChosen,
  onTake,
  onPreview,
  onTried,
  onWhy,
  onLay,
}: {
  joins: Join[];
  /** Whether there is anything on the sheet at all. */
  drawn: boolean;
  /** The seam that was asked for by name, if any. */
  chosen: string;
  onChoose: (name: string) => void;
  onTake: (remedy: Remedy) => void;
  onPreview: (remedy: Remedy) => Promise<Screen>;
  /** What a way out would make while it is looked at, for the sheet and the dress; null when it no longer is. */
  onTried: (made: Screen | null) => void;
  onWhy: (working: number) => void;
  /** Asked for its two pieces laid edge to edge. */
  onLay: (name: string) => void;
}) {
  const [preview, setPreview] = useState<Join | null>(null);
  const asked = useRef(0);
  const away = useCallback(() => {
    asked.current += 1; // an answer still on its way is for nothing now
    setPreview(null);
    onTried(null);
  }, [onTried]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: new joins make a preview of the old ones wrong
  useEffect(away, [joins]);
  const now =
    joins.find((join) => join.name === chosen) ??
    joins.find((join) => !join.meets) ??
    joins.find((join) => join.between_sections) ??
    null;
  const lay = now && (
    <Button look="quiet" className="no-print underline underline-offset-4" onClick={() => onLay(now.name)}>
      {text.layTogether}
    </Button>
  );
  const choice = <SeamChoice joins={joins} chosen={now?.name ?? ""} onChoose={setChosen} />;
  if (!now) {
    return (
      <section
        aria-label={text.ribbon}
        data-testid="ribbon"
        className="flex items-center gap-4 border-t border-chalk bg-linen px-5 py-2"
      >
        <p data-testid="join-sentence">{drawn ? text.cutInOne : text.nothingToMeet}</p>
        {joins.length > 0 && <div className="w-60">{choice}</div>}
      </section>
    );
  }
  const shown = preview ?? now;
  if (now.meets && !preview) {
    return (
      <section
        aria-label={text.ribbon}
        data-testid="ribbon"
        className="flex min-h-14 shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-t border-chalk bg-paper px-5 py-1.5"
      >
        <div className="w-56">{joins.length > 1 ? choice : now.name}</div>
        <p role="status" className="text-lg" data-testid="join-sentence">
          {now.sentence}
        </p>
        <Tape join={now} />
        {lay}
        <Lengths join={now} onWhy={onWhy} />
      </section>
    );
  }
  const look = async (remedy: Remedy) => {
    asked.current += 1;
    const mine = asked.current;
    const made = await onPreview(remedy);
    if (mine !== asked.current) return;
    setPreview(made.joins.find((join) => join.name === now.name) ?? null);
    onTried(made);
  };
  return (
    <section
      aria-label={text.ribbon}
      data-testid="ribbon"
      className="max-h-[25rem] shrink-0 overflow-auto border-t border-chalk bg-paper px-5 pt-2 pb-3 max-[820px]:max-h-none"
    >
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        {joins.length > 1 && <div className="w-48">{choice}</div>}
        <p
          role="status"
          className={`text-lg ${shown.meets ? "" : "font-semibold text-thread"}`}
          data-testid="join-sentence"
        >
          {preview && <span className="text-pencil">{text.ifTaken} </span>}
          {shown.sentence}
        </p>
        {lay}
        <Lengths join={shown} onWhy={onWhy} />
      </div>
      <p aria-hidden className="w-60 text-[13px] leading-none text-pencil min-[1180px]:-mt-4">
        {upperNamed(shown)}
      </p>
      <Ribbon join={shown} />
      {!now.meets && (
        <div className="no-print">
          <h3 className="sr-only">{text.waysOut}</h3>
          <ol className="grid grid-cols-[repeat(auto-fill,minmax(16rem,1fr))] gap-x-1.5">
            {now.remedies.map((remedy, index) => (
              <li key={remedy.code}>
                <Button
                  look="quiet"
                  className="grid h-full w-full grid-cols-[1.4rem_1fr] border-l-[3px] border-transparent hover:border-ink hover:bg-linen focus-visible:border-ink focus-visible:bg-linen"
                  data-remedy={remedy.code}
                  onClick={() => {
                    away();
                    onTake(remedy);
                  }}
                  onFocus={() => look(remedy)}
                  onBlur={away}
                  onMouseEnter={() => look(remedy)}
                  onMouseLeave={away}
                >
                  <span aria-hidden className="font-title text-xl leading-none text-pencil">
                    {index + 1}
                  </span>
                  <span>
                    <span className="block text-[15.5px] leading-tight font-semibold">{remedy.text}</span>
                    {remedy.cost && (
                      <span className="block text-sm leading-tight text-pencil">{remedy.cost}</span>
                    )}
                  </span>
                </Button>
              </li>
            ))}
          </ol>
          {now.remedies.length === 0 && <p>{text.noWay}</p>}
        </div>
      )}
    </section>
  );
}

/** Both sides of a seam with their lengths, each asked why. */
function Lengths({ join, onWhy }: { join: Join; onWhy: (working: number) => void }) {
  const sides = [
    { name: join.upper_name, length: join.upper.whole, why: join.upper_why },
    {
      name: join.lower_name,
      length: join.fullness > 1.001 ? join.cut : join.lower.whole,
      why: join.lower_why,
    },
  ];
  return (
    <dl className="ml-auto flex items-baseline gap-x-4 text-lg">
      {sides.map((side, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: both sides of a seam may be called alike
        <div key={index} className="flex items-baseline gap-1.5">
          <dt className="text-base text-pencil">{side.name}</dt>
          <dd className="font-semibold">{side.length}</dd>
          <dd>
            <WhyButton working={side.why} onWhy={onWhy} />
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** A seam that meets, in little: both edges and the places where they are tied. */
function Tape({ join }: { join: Join }) {
  const x = (at: number) => 2 + (at / join.upper.length) * 216;
  return (
    <svg
      viewBox="0 0 220 24"
      className="h-6 w-56 max-[1180px]:hidden"
      role="img"
      aria-label={described(join)}
    >
      <g stroke="var(--color-ink)">
        <line x1={2} x2={218} y1={5} y2={5} strokeWidth={2} />
        <line x1={2} x2={218} y1={19} y2={19} strokeWidth={2} />
        {join.ties.map((tie) => (
          <g key={tie.name} data-tie={tie.name} data-state={tie.state} strokeWidth={1.4}>
            <line x1={x(tie.upper)} x2={x(tie.lower)} y1={1} y2={23} />
          </g>
        ))}
      </g>
    </svg>
  );
}

const upperNamed = (join: Join) =>
  `${join.upper_name}, ${join.halved ? `${text.half} ` : ""}${join.upper.text}`;

/** The two edges of a join unrolled to one scale, tied by threads that slant where they do not meet. */
function Ribbon({ join }: { join: Join }) {
  const longest = Math.max(join.upper.length, join.lower.length);
  const x = (at: number) => PAD + (at / longest) * (WIDTH - 2 * PAD);
  let last = -CROWDED;
  const named = join.ties.map((tie, index) => {
    const free = x(tie.upper) - last >= CROWDED || index === 0 || index === join.ties.length - 1;
    if (free) last = x(tie.upper);
    return free;
  });
  // the lower side's name stands beside the offsets where none of them is in its way, else below them
  const below = join.ties.some((tie) => tie.state !== "meets" && x(tie.lower) < NAMED) ? 37 : 21;
  return (
    <svg
      viewBox={`0 ${TOP} ${WIDTH} ${LOWER + below + 5 - TOP}`}
      className="w-full min-w-0"
      role="img"
      aria-label={described(join)}
    >
      <g fontSize={14} fill="var(--color-ink)">
        <text x={2} y={LOWER + below} fontSize={13} fill="var(--color-pencil)">
          {join.lower_name}, {join.halved && text.half} {join.lower.text}
          {join.fullness > 1.001 && `, ${text.drawnUp}`}
        </text>
        {[
          { edge: join.upper, y: UPPER },
          { edge: join.lower, y: LOWER },
        ].map(({ edge, y }) => (
          <g key={y} stroke="var(--color-ink)">
            {join.fullness > 1.001 && y === LOWER ? (
              <path d={waves(x(0), x(edge.length), y)} fill="none" strokeWidth={2.5} />
            ) : (
              <line x1={x(0)} x2={x(edge.length)} y1={y} y2={y} strokeWidth={4} />
            )}
            {edge.landmarks.map((mark) => (
              <line key={mark.name} x1={x(mark.at)} x2={x(mark.at)} y1={y - 7} y2={y + 7} strokeWidth={2} />
            ))}
          </g>
        ))}
        {join.ties.map((tie, index) => {
          const off = tie.state === "off";
          const middle = (x(tie.upper) + x(tie.lower)) / 2;
          const anchor = middle > WIDTH - 90 ? "end" : middle < 60 ? "start" : "middle";
          return (
            <g key={tie.name} data-tie={tie.name} data-state={tie.state}>
              <line
                className="thread-line"
                x1={x(tie.upper)}
                y1={UPPER + 7}
                x2={x(tie.lower)}
                y2={LOWER - 7}
                stroke={off ? "var(--color-thread)" : "var(--color-pencil)"}
                strokeWidth={off ? 2.5 : 1.2}
                strokeDasharray={off ? "6 3" : undefined}
              />
              {named[index] && (
                <text x={x(tie.upper)} y={UPPER - 10} textAnchor={anchor} fontSize={13}>
                  {tie.name}
                </text>
              )}
              {tie.state !== "meets" && (
                <text
                  x={Math.min(x(tie.lower), WIDTH - 4)}
                  y={LOWER + 21}
                  textAnchor={anchor}
                  fontWeight={700}
                  fill={off ? "var(--color-thread)" : "var(--color-ink)"}
                >
                  {tie.offset}
                </text>
              )}
            </g>
          );
        })}
        {join.sections.map((section, index) => {
          const [from, to] = [join.ties[index], join.ties[index + 1]];
          if (!from || !to || x(to.upper) - x(from.upper) < 46) return null;
          return (
            <g key={section.start} textAnchor="middle">
              <text x={x((from.upper + to.upper) / 2)} y={UPPER + 18}>
                {section.upper}
              </text>
              <text x={x((from.lower + to.lower) / 2)} y={LOWER - 9}>
                {section.lower}
              </text>
            </g>
          );
        })}
      </g>
    </svg>
  );
}

/** A gathered edge, drawn as the folds it lies in. */
function waves(from: number, to: number, y: number): string {
  const count = Math.max(4, Math.round((to - from) / 12));
  const step = (to - from) / count;
  let d = `M${from} ${y}`;
  for (let k = 0; k < count; k++) d += `q${step / 2} ${k % 2 ? 7 : -7} ${step} 0`;
  return d;
}

function WhyButton({ working, onWhy }: { working: number | null; onWhy: (working: number) => void }) {
  if (working === null) return null;
  return (
    <button
      type="button"
      className="no-print min-h-6 text-sm text-pencil underline"
      onClick={() => onWhy(working)}
    >
      {text.why}
    </button>
  );
}

/** The ribbon for those who do not see it. */
function described(join: Join): string {
  const ties = join.ties.map((tie) => `${tie.name} ${tie.offset}`).join(", ");
  return `${join.sentence} ${ties}`;
}
