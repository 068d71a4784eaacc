import { useEffect, useRef, useState } from "react";
import type { Hang } from "../api/client";
import { text } from "../text";
import { Hung, type Look } from "./scene";

/** The hung dress, turned by hand or by keys. */
export default function Picture({
  hang,
  look,
  later,
}: {
  hang: Hang;
  look: Look;
  /** Whether it is shown as it hangs after two days. */
  later: boolean;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const hung = useRef<Hung | null>(null);
  const [turn, setTurn] = useState(20);
  const [cannot, setCannot] = useState(false);
  const { shape, places, right, rest } = hang;
  const mirrored = right?.shape ?? shape;
  useEffect(() => {
    if (!canvas.current) return;
    try {
      hung.current = new Hung(canvas.current);
    } catch {
      setCannot(true); // said in place of the picture; the reading stands beside it
      return;
    }
    const again = new ResizeObserver(() => hung.current?.show());
    again.observe(canvas.current);
    return () => {
      again.disconnect();
      hung.current?.dispose();
      hung.current = null;
    };
  }, []);
  useEffect(() => {
    if (shape && mirrored) hung.current?.begin([shape, mirrored]);
  }, [shape, mirrored]);
  useEffect(() => {
    const strains = rest && ([rest.strains.left, rest.strains.right ?? rest.strains.left] as const);
    const at = later && rest ? rest.later.left : places;
    const other = later && rest ? rest.later.right : right?.places;
    const out = rest && (later ? rest.ways_later : rest.ways);
    const ways = out && ([out.left, out.right ?? out.left] as const);
    if (shape && mirrored && at) hung.current?.draw([at, other ?? at], look, strains, ways);
  }, [shape, mirrored, places, right, rest, look, later]);
  useEffect(() => hung.current?.turned(turn), [turn]);
  if (cannot) return <p className="p-5">{text.hang.noPicture}</p>;
  return (
    <figure className="flex min-h-0 flex-1 flex-col">
      <canvas
        ref={canvas}
        role="img"
        aria-label={text.hang.picture}
        data-drawn={places ? places.length / 3 : 0}
        className="min-h-0 w-full flex-1 cursor-grab touch-none"
        onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
        onPointerMove={(event) => {
          if (event.buttons) setTurn((now) => (now - event.movementX * 0.6 + 720) % 360);
        }}
      />
      <figcaption className="no-print flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1">
        <label className="flex w-full items-center gap-2">
          {text.hang.turned}
          <input
            type="range"
            min={0}
            max={360}
            step={5}
            value={Math.round(turn)}
            aria-valuetext={text.hang.degrees(Math.round(turn))}
            onChange={(event) => setTurn(Number(event.target.value))}
            className="h-6 min-w-0 flex-1 accent-ink"
          />
        </label>
        {text.hang.views.map(([name, at]) => (
          <button
            key={name}
            type="button"
            aria-pressed={Math.round(turn) === at}
            onClick={() => setTurn(at)}
            className="min-h-8 rounded-sm px-2 underline-offset-4 hover:bg-lining aria-pressed:underline"
          >
            {name}
          </button>
        ))}
      </figcaption>
    </figure>
  );
}
