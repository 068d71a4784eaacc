import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from "react";
import { text } from "../text";

type Corner = [number, number];

const MOVES: Record<string, Corner> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** A photograph with the four corners of its mat, each to be drawn or moved by key to where it truly is. */
export function MatCorners({
  file,
  picture,
  onSet,
}: {
  file: File;
  picture: { width: number; height: number; corners: number[][] };
  onSet: (corners: Corner[]) => void;
}) {
  const [url, setUrl] = useState("");
  const [corners, setCorners] = useState<Corner[]>([]);
  const [held, setHeld] = useState<number | null>(null);
  const drawing = useRef<SVGSVGElement>(null);
  useEffect(() => {
    const made = URL.createObjectURL(file);
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [file]);
  useEffect(() => setCorners(picture.corners.map(([x = 0, y = 0]) => [x, y])), [picture]);

  const place = (event: PointerEvent): Corner => {
    const matrix = drawing.current?.getScreenCTM()?.inverse();
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return [Math.round(point.x), Math.round(point.y)];
  };
  const moved = (at: number, to: Corner) => corners.map((corner, k) => (k === at ? to : corner));
  const byKey = (at: number) => (event: KeyboardEvent) => {
    const way = MOVES[event.key];
    const now = corners[at];
    if (!way || !now) return;
    event.preventDefault();
    const step = event.shiftKey ? 1 : Math.max(picture.width / 300, 1);
    const next = moved(at, [Math.round(now[0] + way[0] * step), Math.round(now[1] + way[1] * step)]);
    setCorners(next);
    onSet(next);
  };
  const size = picture.width / 60;
  return (
    <figure className="mt-3">
      <svg
        ref={drawing}
        role="group"
        aria-label={text.own.seen}
        viewBox={`0 0 ${picture.width} ${picture.height}`}
        className="max-h-80 w-full touch-none"
        onPointerMove={(event) => held !== null && setCorners(moved(held, place(event)))}
        onPointerUp={() => {
          if (held !== null) onSet(corners);
          setHeld(null);
        }}
      >
        {url && <image href={url} width={picture.width} height={picture.height} />}
        <polygon
          points={corners.map((corner) => corner.join(",")).join(" ")}
          fill="none"
          stroke="var(--color-thread)"
          strokeWidth={size / 4}
        />
        {corners.map((corner, k) => (
          // biome-ignore lint/a11y/noStaticElementInteractions: a corner is drawn by hand and moved by key
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: four corners keep their places
            key={k}
            tabIndex={0}
            aria-label={text.own.corner(k + 1)}
            cx={corner[0]}
            cy={corner[1]}
            r={size}
            fill="var(--color-card)"
            fillOpacity={0.6}
            stroke="var(--color-thread)"
            strokeWidth={size / 4}
            className="cursor-grab"
            onPointerDown={(event) => {
              event.preventDefault();
              setHeld(k);
            }}
            onKeyDown={byKey(k)}
          />
        ))}
      </svg>
      <figcaption className="text-pencil">{text.own.seen}</figcaption>
    </figure>
  );
}
