import type { Edge, Piece } from "../api/client";
import type { Touched } from "../dress/Dress";
import { text } from "../text";
import { type Label, labelOf, labelsApart, room } from "./labels";

/** A pixel, as a browser counts it (mm). */
export const PIXEL = 25.4 / 96;
/** A piece narrower than this many pixels carries its name above it, and no lengths until it is touched. */
const SMALL = 110;
/** Narrower still, and its name would run over its neighbours; touching an edge says it. */
const NARROW = 40;

/** From an edge to the one it is sewn to. */
function goToMate(edge: Edge) {
  const mate = edge.mates[0];
  if (!mate) return;
  const there = document.querySelector<SVGElement>(
    `[data-edge="${CSS.escape(`${mate.piece}/${mate.edge}`)}"]`,
  );
  there?.focus();
}

/** The gap between two waves as one shape: down the first and up the second. */
function between([first = "", second = ""]: string[]): string {
  const [, start, rest] = second.match(/^M(\S+ \S+)C(.*)$/) ?? [];
  const [a, b, end] = (rest ?? "").match(/\S+ \S+/g) ?? [];
  return `${first}L${end}C${b} ${a} ${start}Z`;
}

/** About how many pixels a small piece's name takes. */
const wide = (name: string) => name.length * 6.6;

/** A name in two lines, parted at the space nearest its middle. */
function inTwo(name: string): string[] {
  const spaces = [...name.matchAll(/ /g)].map((space) => space.index);
  const off = (at: number) => Math.abs(at - name.length / 2);
  const at = spaces.sort((a, b) => off(a) - off(b))[0];
  return at === undefined ? [name] : [name.slice(0, at), name.slice(at + 1)];
}

export function PieceDrawing({
  piece,
  px,
  lit,
  named,
  onTouch,
}: {
  piece: Piece;
  px: number;
  lit: Set<string>;
  /** The lit edges whose lengths are said: the touched one and its mates. */
  named: Set<string>;
  onTouch: (touched: Touched | null) => void;
}) {
  const [left, top, width, height] = piece.box;
  const small = Math.min(width, height) / px < SMALL;
  const detailed = width / px > 200;
  /** A long narrow piece carries its name along its grain. */
  const along = small && height > 1.8 * width && height / px > piece.name.length * 9 && width / px > 20;
  const lines = small && !detailed && wide(piece.name) > width / px ? inTwo(piece.name) : [piece.name];
  /** A small piece whose name in two lines has room in it carries it there, clear of its neighbours. */
  const inside = small && height / px > 64 && Math.max(...lines.map(wide)) < width / px - 14;
  const titleY = !small
    ? top + height * 0.62
    : inside
      ? top + height / 2 + (6 * lines.length - 2) * px
      : top - (detailed ? 24 : 7) * px;
  const cut = `${text.cut(piece.cut, piece.on_fold)}, ${piece.material}`;
  const name: Label = { at: left + width / 2, y: titleY - 5 * px, anchor: "middle" };
  const title = small ? null : room(detailed ? cut : piece.name, name, px, detailed ? 2 : 1);
  const shown = labelsApart(piece, px, title);
  return (
    <g data-piece={piece.name} fill="none" stroke="var(--color-ink)">
      <path d={piece.cut_line} stroke="none" fill="var(--color-card)" />
      <path d={piece.cut_strokes} strokeWidth={2 * px} />
      <path d={piece.seam_line} strokeWidth={px} strokeDasharray={`${5 * px} ${3 * px}`} />
      {piece.fold.map((d) => (
        <path
          key={d}
          d={d}
          strokeWidth={2 * px}
          strokeDasharray={`${12 * px} ${3 * px} ${2 * px} ${3 * px}`}
        />
      ))}
      {[...piece.internal, ...piece.grain, ...piece.notches].map((d) => (
        <path key={d} d={d} strokeWidth={px} />
      ))}
      {piece.breaks.length === 2 && (
        <g>
          <path d={between(piece.breaks)} fill="var(--color-linen)" stroke="none" />
          {piece.breaks.map((d) => (
            <path key={d} d={d} strokeWidth={1.5 * px} />
          ))}
        </g>
      )}
      {piece.edges.map((edge) => {
        const isLit = lit.has(`${piece.name}/${edge.name}`);
        const isNamed = named.has(`${piece.name}/${edge.name}`);
        const label = labelOf(edge, px);
        return (
          <g key={edge.name}>
            {isLit && (
              <g data-lit={`${piece.name}/${edge.name}`}>
                <path d={edge.d} strokeWidth={9 * px} stroke="var(--color-chalk)" strokeLinecap="round" />
                <path d={edge.d} strokeWidth={3 * px} strokeLinecap="round" />
              </g>
            )}
            {(isNamed || (!small && shown.has(edge.name))) && (
              <text
                x={label.at}
                y={label.y}
                fontSize={13 * px}
                fill="var(--color-ink)"
                fontWeight={isNamed ? 700 : 500}
                stroke="var(--color-card)"
                strokeWidth={4 * px}
                paintOrder="stroke"
                textAnchor={label.anchor}
                dominantBaseline="central"
              >
                {edge.length}
              </text>
            )}
            <path
              d={edge.d}
              role="button"
              tabIndex={0}
              data-edge={`${piece.name}/${edge.name}`}
              aria-label={`${piece.name}, ${edge.name}, ${edge.length}`}
              strokeWidth={24 * px}
              stroke="transparent"
              pointerEvents="stroke"
              className="cursor-pointer focus:outline-none"
              onPointerMove={() => onTouch({ piece: piece.name, edge: edge.name })}
              onClick={() => onTouch({ piece: piece.name, edge: edge.name })}
              onFocus={() => onTouch({ piece: piece.name, edge: edge.name })}
              onKeyDown={(event) => event.key === "Enter" && goToMate(edge)}
            />
          </g>
        );
      })}
      {along && (
        <text
          transform={`translate(${piece.heart[0] + 5 * px} ${piece.heart[1]}) rotate(-90)`}
          stroke="var(--color-card)"
          strokeWidth={4 * px}
          paintOrder="stroke"
          fill="var(--color-ink)"
          fontSize={14 * px}
          fontWeight={700}
          textAnchor="middle"
        >
          {piece.name}
        </text>
      )}
      {piece.breaks.length === 2 && (
        <text
          x={left + width * 0.8}
          y={top + height / 2 + 5 * px}
          fill="var(--color-ink)"
          stroke="none"
          fontSize={15 * px}
          fontWeight={700}
          textAnchor="middle"
        >
          {piece.width}
        </text>
      )}
      {width / px > NARROW && !along && (
        <text
          x={left + width / 2}
          y={titleY}
          stroke="var(--color-card)"
          strokeWidth={4 * px}
          paintOrder="stroke"
          fill="var(--color-ink)"
          fontSize={(small ? 12 : 15) * px}
          textAnchor="middle"
        >
          {lines.length > 1 ? (
            lines.map((part, line, parts) => (
              <tspan
                key={part}
                x={left + width / 2}
                dy={(line === 0 ? -13 * (parts.length - 1) : 13) * px}
                fontWeight={700}
              >
                {part}
              </tspan>
            ))
          ) : (
            <tspan fontWeight={700}>{piece.name}</tspan>
          )}
          {detailed && (
            <tspan x={left + width / 2} dy={17 * px} fontSize={13 * px}>
              {cut}
            </tspan>
          )}
        </text>
      )}
    </g>
  );
}
