import { Minus, Plus } from "lucide-react";
import { type MouseEvent, type PointerEvent, useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Edge, Piece, Screen, SentencePart } from "../api/client";
import type { Touched } from "../dress/Dress";
import { text } from "../text";
import { Button } from "../ui/Button";
import { type Label, labelOf, labelsApart, room } from "./labels";

/** What part of the sheet is seen: its corner in mm, and how many mm one pixel shows. */
export interface View {
  x: number;
  y: number;
  perPixel: number;
}

/** A pixel, as a browser counts it (mm). */
export const PIXEL = 25.4 / 96;
/** A piece narrower than this many pixels carries its name above it, and no lengths until it is touched. */
const SMALL = 110;
/** Narrower still, and its name would run over its neighbours; touching an edge says it. */
const NARROW = 40;
const SCALES = [1, 2, 5, 10];

/** Everything, or what is cut from one cloth. */
const ALL = "";

/** The box round some pieces (mm, y down), with room for names and allowances. */
function boxOf(
  pieces: Piece[],
  sheet: Screen["sheet"],
): { x: number; y: number; width: number; height: number } {
  if (!pieces.length || pieces.length === sheet.pieces.length) {
    return { x: 0, y: -sheet.height, width: sheet.width, height: sheet.height };
  }
  const left = Math.min(...pieces.map(({ box }) => box[0]));
  const top = Math.min(...pieces.map(({ box }) => box[1]));
  const right = Math.max(...pieces.map(({ box }) => box[0] + box[2]));
  const bottom = Math.max(...pieces.map(({ box }) => box[1] + box[3]));
  return { x: left, y: top, width: right - left, height: bottom - top };
}

/** The pieces to one scale. Touch an edge and it lights up with the edge it is sewn to. */
export function Sheet({
  sheet,
  fitKey,
  about,
  touched,
  onTouch: setTouched,
  shown,
}: {
  sheet: Screen["sheet"];
  fitKey: number;
  /** The edges that a sentence is about, lit while it is pointed at. */
  about: SentencePart["acts_on"];
  /** The edge that is touched, here or on the drawn dress. */
  touched: Touched | null;
  onTouch: (touched: Touched | null) => void;
  /** Whether it is seen, or something else lies over it. */
  shown: boolean;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 600, height: 400 });
  const [view, setView] = useState<View | null>(null);
  const drag = useRef<{ x: number; y: number; view: View } | null>(null);
  /** The fingers on the sheet: two of them pinch it. */
  const fingers = useRef(new Map<number, { x: number; y: number }>());
  const [cloth, setCloth] = useState(ALL);
  const cloths = [...new Set(sheet.pieces.map((piece) => piece.material))];
  const asked = cloths.includes(cloth) ? cloth : ALL;
  const pieces = useMemo(
    () => (asked === ALL ? sheet.pieces : sheet.pieces.filter((piece) => piece.material === asked)),
    [sheet.pieces, asked],
  );

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, []);

  const fitTo = useCallback(
    (box: ReturnType<typeof boxOf>): View => {
      const perPixel = Math.max(box.width / (size.width - 30), box.height / (size.height - 60));
      return {
        perPixel,
        x: box.x - (size.width * perPixel - box.width) / 2,
        y: box.y - (size.height * perPixel - box.height) / 2,
      };
    },
    [size],
  );
  const fitted = useMemo<View>(() => fitTo(boxOf(pieces, sheet)), [pieces, sheet, fitTo]);
  const seen = view ?? fitted;

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new key asks for the whole sheet again, another cloth too
  useEffect(() => setView(null), [fitKey, asked]);

  const zoom = useCallback(
    (factor: number, at = { x: size.width / 2, y: size.height / 2 }) => {
      setView((now) => {
        const from = now ?? fitted;
        const perPixel = Math.min(Math.max(from.perPixel * factor, 0.05), 20);
        return {
          perPixel,
          x: from.x + at.x * (from.perPixel - perPixel),
          y: from.y + at.y * (from.perPixel - perPixel),
        };
      });
    },
    [fitted, size],
  );

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      zoom(Math.exp(event.deltaY / 500), { x: event.clientX - box.left, y: event.clientY - box.top });
    };
    element.addEventListener("wheel", wheel, { passive: false });
    return () => element.removeEventListener("wheel", wheel);
  }, [zoom]);

  const pan = (dx: number, dy: number) =>
    setView((now) => {
      const from = now ?? fitted;
      return { ...from, x: from.x + dx * from.perPixel, y: from.y + dy * from.perPixel };
    });

  const onKeyDown = (event: React.KeyboardEvent) => {
    const moves: Record<string, () => void> = {
      ArrowLeft: () => pan(-60, 0),
      ArrowRight: () => pan(60, 0),
      ArrowUp: () => pan(0, -60),
      ArrowDown: () => pan(0, 60),
      "+": () => zoom(0.8),
      "-": () => zoom(1.25),
      "0": () => setView(null),
    };
    const move = moves[event.key];
    if (move) {
      event.preventDefault();
      event.stopPropagation();
      move();
    }
  };

  /** A piece pressed twice fills the sheet; pressed twice again it is one of all. */
  const fill = (event: MouseEvent) => {
    const name = (event.target as Element).closest("[data-piece]")?.getAttribute("data-piece");
    const piece = pieces.find((one) => one.name === name);
    if (!piece) return setView(null);
    const [x = 0, y = 0, width = 0, height = 0] = piece.box;
    const large = fitTo({ x, y, width, height });
    setView((now) => (now && Math.abs(now.perPixel - large.perPixel) < 1e-6 ? null : large));
  };

  const startDrag = (event: PointerEvent) => {
    fingers.current.set(event.pointerId, { x: event.clientX, y: event.clientY });
    drag.current = fingers.current.size > 1 ? null : { x: event.clientX, y: event.clientY, view: seen };
  };
  const lift = (event: PointerEvent) => {
    fingers.current.delete(event.pointerId);
    drag.current = null;
  };
  const pinch = (event: PointerEvent) => {
    const [one, other] = [...fingers.current.values()];
    if (!one || !other) return;
    const before = Math.hypot(one.x - other.x, one.y - other.y);
    fingers.current.set(event.pointerId, { x: event.clientX, y: event.clientY });
    const [here, there] = [...fingers.current.values()];
    if (!here || !there) return;
    const after = Math.hypot(here.x - there.x, here.y - there.y);
    const box = frame.current?.getBoundingClientRect();
    if (!box || after < 1) return;
    zoom(before / after, { x: (here.x + there.x) / 2 - box.left, y: (here.y + there.y) / 2 - box.top });
  };
  const moveDrag = (event: PointerEvent) => {
    if (fingers.current.size > 1 && fingers.current.has(event.pointerId)) return pinch(event);
    const from = drag.current;
    if (!from) return;
    setView({
      ...from.view,
      x: from.view.x - (event.clientX - from.x) * from.view.perPixel,
      y: from.view.y - (event.clientY - from.y) * from.view.perPixel,
    });
  };

  const named = litEdges(sheet.pieces, touched);
  const lit = new Set([...named, ...about.map(([piece, edge]) => `${piece}/${edge}`)]);
  const px = seen.perPixel;
  const scaleNow = seen.perPixel / PIXEL;

  return (
    <section
      aria-label={text.sheet}
      hidden={!shown}
      className={`relative min-h-0 min-w-0 flex-1 flex-col bg-linen ${shown ? "flex" : "hidden"}`}
    >
      <div
        ref={frame}
        role="group"
        tabIndex={0}
        aria-label={text.sheetHelp}
        className="relative min-h-0 flex-1 touch-none overflow-hidden"
        onKeyDown={onKeyDown}
        onPointerDown={startDrag}
        onPointerMove={moveDrag}
        onPointerUp={lift}
        onPointerCancel={lift}
        onPointerLeave={lift}
        onDoubleClick={fill}
      >
        <svg
          data-testid="sheet"
          width={size.width}
          height={size.height}
          viewBox={`${seen.x} ${seen.y} ${size.width * px} ${size.height * px}`}
          className="absolute inset-0"
        >
          {pieces.map((piece) => (
            <PieceDrawing
              key={piece.name}
              piece={piece}
              px={px}
              lit={lit}
              named={named}
              onTouch={setTouched}
            />
          ))}
        </svg>
      </div>
      <div className="no-print flex min-h-10 flex-wrap items-center gap-x-2 border-t border-chalk px-3 text-sm">
        <p className="line-clamp-2 min-w-0 flex-1 leading-tight" aria-live="polite" data-testid="edge-words">
          {touched ? (
            <EdgeWords pieces={sheet.pieces} touched={touched} />
          ) : (
            <span className="text-pencil">{text.sheetHelp}</span>
          )}
        </p>
        {cloths.length > 1 && (
          <select
            aria-label={text.whichCloth}
            value={asked}
            onChange={(event) => setCloth(event.target.value)}
            className="min-h-7 rounded-sm border border-chalk bg-paper px-1 text-ink"
          >
            <option value={ALL}>{text.allPieces}</option>
            {cloths.map((one) => (
              <option key={one} value={one}>
                {one}
              </option>
            ))}
          </select>
        )}
        <label className="flex items-center gap-1 text-pencil">
          <span className="sr-only">{text.scale}</span>
          <select
            value={SCALES.includes(Math.round(scaleNow * 100) / 100) ? String(Math.round(scaleNow)) : "fit"}
            onChange={(event) => {
              const wanted = Number(event.target.value);
              if (wanted) zoom((wanted * PIXEL) / seen.perPixel);
              else setView(null);
            }}
            className="min-h-7 rounded-sm border border-chalk bg-paper px-1 text-ink"
          >
            <option value="fit">1 : {scaleNow.toFixed(1)}</option>
            {SCALES.map((scale) => (
              <option key={scale} value={scale}>
                1 : {scale}
              </option>
            ))}
          </select>
        </label>
        <Button look="quiet" aria-label={text.zoomOut} onClick={() => zoom(1.25)}>
          <Minus size={16} />
        </Button>
        <Button look="quiet" aria-label={text.zoomIn} onClick={() => zoom(0.8)}>
          <Plus size={16} />
        </Button>
        <Button look="quiet" onClick={() => setView(null)}>
          {text.fit}
        </Button>
      </div>
    </section>
  );
}

/** From an edge to the one it is sewn to. */
function goToMate(edge: Edge) {
  const mate = edge.mates[0];
  if (!mate) return;
  const there = document.querySelector<SVGElement>(
    `[data-edge="${CSS.escape(`${mate.piece}/${mate.edge}`)}"]`,
  );
  there?.focus();
}

/** The touched edge and every edge it is sewn to, as "piece/edge". */
export function litEdges(pieces: Piece[], touched: Touched | null): Set<string> {
  if (!touched) return new Set();
  const edge = findEdge(pieces, touched);
  return new Set([
    `${touched.piece}/${touched.edge}`,
    ...(edge?.mates ?? []).map((mate) => `${mate.piece}/${mate.edge}`),
  ]);
}

function findEdge(pieces: Piece[], at: Touched): Edge | undefined {
  return pieces.find((piece) => piece.name === at.piece)?.edges.find((edge) => edge.name === at.edge);
}

/** An edge in words: how long, and what it is sewn to. */
function EdgeWords({ pieces, touched }: { pieces: Piece[]; touched: Touched }) {
  const edge = findEdge(pieces, touched);
  if (!edge) return null;
  const mates = edge.mates
    .map((mate) => `${text.sewnTo} ${mate.piece} ${mate.edge}: ${mate.text}`)
    .join("; ");
  return (
    <>
      <strong>
        {touched.piece}, {edge.name}
      </strong>{" "}
      {edge.length}
      {edge.length !== edge.drawn_length && ` (${edge.drawn_length} drawn)`} · {text.allowance}{" "}
      {edge.allowance} · {mates || text.free}
    </>
  );
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
