import { type ReactNode, useEffect, useRef, useState } from "react";
import type { DressView, Screen } from "../api/client";
import { text } from "../text";

/** Where a line belongs: a piece, and one of its edges. */
export interface Touched {
  piece: string;
  edge: string;
}

const at = (line: { piece: string; edge: string }) => `${line.piece}/${line.edge}`;

/** The finished garment on its figure: one view large, the two others small; a small one touched changes places. */
export function Dress({
  dress,
  lit,
  onTouch,
  children,
}: {
  dress: Screen["dress"];
  /** The edges that are lit, as "piece/edge". */
  lit: Set<string>;
  onTouch: (touched: Touched | null) => void;
  /** What lies under it. */
  children?: ReactNode;
}) {
  const [large, setLarge] = useState<DressView["seen"]>("front");
  const front = dress.views.find((view) => view.seen === large);
  if (!front) return null;
  const others = dress.views.filter((view) => view !== front);
  const hem = dress.levels.find((level) => level.name === "hem");
  return (
    <section
      aria-label={text.dress.title}
      data-walk="dress"
      className="flex min-h-0 min-w-0 flex-col bg-linen"
    >
      <div className="flex min-h-0 flex-1 gap-1 px-3 pt-3">
        <Seen view={front} lit={lit} onTouch={onTouch} tape={hem} className="min-w-0 flex-[2]" />
        <div className="no-print flex min-h-0 min-w-0 flex-1 flex-col gap-1">
          {others.map((view) => (
            <button
              key={view.seen}
              type="button"
              aria-label={text.dress.makeLarge(view.seen)}
              onClick={() => setLarge(view.seen)}
              className="flex min-h-0 flex-1 flex-col rounded-sm hover:bg-lining"
            >
              <Drawing view={view} lit={lit} className="min-h-0 flex-1" />
              <span className="block w-full text-center text-sm text-pencil">
                {text.dress.seen[view.seen]}
              </span>
            </button>
          ))}
        </div>
      </div>
      <dl className="flex flex-wrap justify-center gap-x-4 px-3 pb-2 text-[15px]" data-testid="levels">
        {dress.levels.map((level) => (
          <div key={level.name} className="flex gap-1.5">
            <dt className="text-pencil">{level.name}</dt>
            <dd>
              {level.girth}
              {level.name === "hem" && (
                <span className="text-pencil">
                  , {level.height} {text.dress.aboveFloor}
                </span>
              )}
            </dd>
          </div>
        ))}
      </dl>
      {children}
    </section>
  );
}

function Seen({
  view,
  lit,
  onTouch,
  tape,
  className,
}: {
  view: DressView;
  lit: Set<string>;
  onTouch: (touched: Touched | null) => void;
  tape: Screen["dress"]["levels"][number] | undefined;
  className: string;
}) {
  return (
    <figure className={`flex min-h-0 flex-col ${className}`}>
      <Drawing view={view} lit={lit} onTouch={onTouch} tape={tape} className="min-h-0 flex-1" />
      <figcaption className="text-center text-sm font-semibold">{text.dress.seen[view.seen]}</figcaption>
    </figure>
  );
}

/** How each line of the drawing is inked; thicknesses are millimetres of her. */
const INKS: Record<string, { fill: string; stroke?: string; width?: number; dashes?: string }> = {
  form: { fill: "var(--color-form)" },
  cloth: { fill: "var(--color-card)", stroke: "var(--color-ink)", width: 7 },
  inside: { fill: "var(--color-form)", stroke: "var(--color-ink)", width: 5 },
  paper: { fill: "none", stroke: "var(--color-pencil)", width: 5, dashes: "16 10" },
  seam: { fill: "none", stroke: "var(--color-ink)", width: 4 },
  dart: { fill: "none", stroke: "var(--color-ink)", width: 4 },
  mark: { fill: "none", stroke: "var(--color-ink)", width: 4 },
  hem: { fill: "none", stroke: "var(--color-ink)", width: 7 },
  zip: { fill: "none", stroke: "var(--color-ink)", width: 7, dashes: "4 7" },
  fold: { fill: "var(--color-ink)" },
  button: { fill: "var(--color-ink)" },
};

/** A cloth's colour as it is drawn, in either light: so that ink is seen on the darkest. */
export const tint = (colour: string) => `color-mix(in srgb, ${colour} 45%, var(--color-card))`;

/** One view in ink lines. */
export function Drawing({
  view,
  lit,
  onTouch,
  tape,
  className,
}: {
  view: {
    box: number[];
    paths: { ink: string; d: string; piece?: string; edge?: string; colour?: string }[];
  };
  lit?: Set<string>;
  onTouch?: (touched: Touched | null) => void;
  tape?: Screen["dress"]["levels"][number];
  className?: string;
}) {
  const [left = 0, top = 0, width = 0, height = 0] = view.box;
  const drawing = useRef<SVGSVGElement>(null);
  // by pointer alone: by keys the same edges are gone through on the sheet
  useEffect(() => {
    const element = drawing.current;
    if (!element || !onTouch) return;
    const touch = (event: Event) => {
      const line = (event.target as Element).closest("[data-line]")?.getAttribute("data-line");
      const [piece, edge] = line?.split("/") ?? [];
      onTouch(piece && edge ? { piece, edge } : null);
    };
    // moved over, not merely lain under: a pointer at rest takes nothing from the keyboard when the page shifts
    for (const kind of ["pointermove", "click"]) element.addEventListener(kind, touch);
    return () => {
      for (const kind of ["pointermove", "click"]) element.removeEventListener(kind, touch);
    };
  }, [onTouch]);
  const lines = view.paths.filter((path) => path.piece && path.edge);
  const isLit = (path: (typeof lines)[number]) =>
    lit?.has(at({ piece: path.piece ?? "", edge: path.edge ?? "" })) ?? false;
  return (
    <svg
      ref={drawing}
      aria-hidden={onTouch ? undefined : true}
      role={onTouch ? "img" : undefined}
      aria-label={onTouch ? text.dress.title : undefined}
      data-testid={onTouch ? "dress" : undefined}
      viewBox={`${left} ${top} ${width} ${height}`}
      className={`h-full w-full ${className ?? ""}`}
      strokeLinejoin="round"
      strokeLinecap="round"
    >
      <line x1={left} x2={left + width} y1={0} y2={0} stroke="var(--color-basting)" strokeWidth={4} />
      {view.paths.map((path, index) => {
        const ink = INKS[path.ink];
        return (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: lines keep their place, the farthest first
            key={index}
            d={path.d}
            fill={path.colour ? tint(path.colour) : ink?.fill}
            stroke={ink?.stroke}
            strokeWidth={ink?.width}
            strokeDasharray={ink?.dashes}
          />
        );
      })}
      {lines.filter(isLit).map((path) => (
        <g key={path.d} fill="none" data-lit={`${path.piece}/${path.edge}`}>
          <path d={path.d} stroke="var(--color-chalk)" strokeWidth={26} />
          <path d={path.d} stroke="var(--color-ink)" strokeWidth={10} />
        </g>
      ))}
      {tape && tape.at > 60 && (
        <g stroke="var(--color-basting)" strokeWidth={3} fill="var(--color-ink)">
          <line x1={left + 30} x2={left + 30} y1={0} y2={-tape.at} />
          <line x1={left + 15} x2={left + 45} y1={-tape.at} y2={-tape.at} />
          <text x={left + 42} y={-16} stroke="none" fontSize={42}>
            {tape.height}
          </text>
        </g>
      )}
      {onTouch &&
        lines.map((path) => (
          <path
            key={`${path.d} touch`}
            d={path.d}
            data-line={at({ piece: path.piece ?? "", edge: path.edge ?? "" })}
            fill="none"
            stroke="transparent"
            strokeWidth={36}
            pointerEvents="stroke"
            className="cursor-pointer"
          />
        ))}
    </svg>
  );
}
