import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import type { Lay, Unit } from "../api/client";
import { text } from "../text";

const MOVES: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const STEP = { cm: 10, in: 25.4 };

type Pins = NonNullable<Lay["asked"]["pins"]>;

/** A cloth with what lies on it; a thing can be drawn along, moved with the arrow keys, turned and pinned down. */
export function LaidCloth({
  laid,
  unit,
  movable,
  onMove,
}: {
  laid: Lay;
  unit: Unit;
  movable: boolean;
  onMove: (spots: Lay["spots"], pins: Pins) => void;
}) {
  const picture = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<{ k: number; from: [number, number]; by: [number, number] } | null>(null);
  const size = laid.width / 28;

  /** Put a thing elsewhere, and pin it there. */
  const put = (k: number, along: number, across: number, turn = false) => {
    const spots = laid.spots.map((spot, index) => {
      if (index !== k) return spot;
      const onFold = spot.layers === "on the fold"; // it keeps to the fold, and end for end its paper is turned over
      const turned = turn ? !spot.turned : spot.turned;
      return {
        ...spot,
        x: spot.x + (onFold ? 0 : across),
        y: spot.y + along,
        turned,
        flipped: onFold ? turned : spot.flipped,
      };
    });
    const moved = spots[k];
    if (!moved) return;
    const others = (laid.asked.pins ?? []).filter((pin) => pin.name !== moved.name);
    onMove(spots, [...others, { name: moved.name, x: moved.x, y: moved.y, turned: moved.turned ?? false }]);
  };
  const pin = (k: number) => {
    const spot = laid.spots[k];
    if (!spot) return;
    const others = (laid.asked.pins ?? []).filter((one) => one.name !== spot.name);
    const was = others.length !== (laid.asked.pins ?? []).length;
    onMove(
      laid.spots,
      was ? others : [...others, { name: spot.name, x: spot.x, y: spot.y, turned: spot.turned ?? false }],
    );
  };
  const keys = (k: number) => (event: KeyboardEvent) => {
    const way = MOVES[event.key];
    const step = event.shiftKey ? STEP[unit] / 10 : STEP[unit];
    if (way) put(k, way[0] * step, way[1] * step);
    else if (event.key === "Enter" || event.key === " ") pin(k);
    else if (event.key === "t" && !laid.one_way) put(k, 0, 0, true);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const place = (event: PointerEvent): [number, number] => {
    const matrix = picture.current?.getScreenCTM()?.inverse();
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return [point.x, point.y];
  };

  return (
    <>
      <svg
        ref={picture}
        role="group"
        aria-label={text.lays.picture(laid.cloth)}
        viewBox={`-6 -6 ${Math.max(laid.length, laid.width * 0.8) + 12} ${laid.width + 12}`}
        className="my-2 max-h-[27rem] w-full"
        preserveAspectRatio="xMinYMid meet"
      >
        <rect
          width={laid.length}
          height={laid.width}
          fill={laid.colour ?? "var(--color-lining)"}
          fillOpacity={laid.colour ? 0.45 : 1}
          stroke="var(--color-basting)"
          strokeWidth={3}
        />
        {laid.folded !== null && (
          <FoldedCloth
            folded={laid.folded}
            width={laid.width}
            end={laid.opened_from ?? laid.length}
            size={size}
          />
        )}
        {laid.placed.map((one, k) => {
          const by = held?.k === k ? held.by : [0, 0];
          return (
            // biome-ignore lint/a11y/noStaticElementInteractions: a piece of cloth on the table is moved by hand and by key
            <g
              key={one.name}
              data-laid={one.name}
              data-pinned={one.pinned || undefined}
              tabIndex={movable ? 0 : undefined}
              aria-label={`${one.number}, ${one.name}${one.pinned ? `, ${text.lays.pinned}` : ""}`}
              transform={`translate(${by[0]} ${by[1]})`}
              className={movable ? "cursor-grab touch-none outline-offset-0" : ""}
              onKeyDown={movable ? keys(k) : undefined}
              onPointerDown={(event) => {
                if (!movable) return;
                event.currentTarget.setPointerCapture(event.pointerId);
                setHeld({ k, from: place(event), by: [0, 0] });
              }}
              onPointerMove={(event) => {
                if (held?.k !== k) return;
                const [x, y] = place(event);
                setHeld({ ...held, by: [x - held.from[0], y - held.from[1]] });
              }}
              onPointerUp={() => {
                if (held?.k !== k) return;
                const [along, across] = held.by;
                setHeld(null);
                if (Math.hypot(along, across) > 4) put(k, along, across);
              }}
            >
              <path
                d={one.d}
                fillRule="evenodd"
                fill={one.fault ? "var(--color-mend)" : "var(--color-card)"}
                stroke={one.fault ? "var(--color-thread)" : "var(--color-ink)"}
                strokeWidth={one.fault || one.pinned ? 8 : 4}
              />
              <text
                x={one.along}
                y={one.across}
                fontSize={size}
                fontWeight={700}
                textAnchor="middle"
                dominantBaseline="central"
                fill="var(--color-ink)"
              >
                {one.number}
                {one.pinned ? "•" : ""}
              </text>
            </g>
          );
        })}
      </svg>
      {movable && <p className="text-[15px] text-pencil">{text.lays.move}</p>}
    </>
  );
}

/** Where a folded cloth has its fold, lies single, and is opened out. */
function FoldedCloth({
  folded,
  width,
  end,
  size,
}: {
  folded: number;
  width: number;
  end: number;
  size: number;
}) {
  return (
    <g fontSize={size * 1.4} fill="var(--color-pencil)">
      {end > 0 && (
        <rect
          y={width - folded}
          width={end}
          height={folded}
          fill="var(--color-paper)"
          stroke="var(--color-basting)"
          strokeWidth={3}
          strokeDasharray="18 14"
        />
      )}
      <line x1={0} x2={end} y1={0} y2={0} stroke="var(--color-ink)" strokeWidth={10} />
      {end > 0 && width - 2 * folded > 1 && (
        <line x1={0} x2={end} y1={folded} y2={folded} stroke="var(--color-ink)" strokeWidth={4} />
      )}
      {end > 0 && (
        <text x={end / 2} y={width - folded / 2} textAnchor="middle">
          {text.lays.folded}
        </text>
      )}
    </g>
  );
}
