import { Minus, Plus } from "lucide-react";
import { type MouseEvent, type PointerEvent, useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Edge, Piece, Screen, SentencePart } from "../api/client";
import type { Touched } from "../dress/Dress";
import { text } from "../text";
import { Button } from "../ui/Button";
import { PIXEL, PieceDrawing } from "./PieceDrawing";

/** What part of the sheet is seen: its corner in mm, and how many mm one pixel shows. */
export interface View {
  x: number;
  y: number;
  perPixel: number;
}

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
