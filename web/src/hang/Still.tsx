import { useEffect, useRef, useState } from "react";
import type { Hang } from "../api/client";
import { text } from "../text";
import { Hung, type Look } from "./scene";

/** A hung dress seen from one side, as a picture. */
export default function Still({
  hang,
  turn = 20,
  look = "shaded",
  name = text.hang.picture,
  onDrawn,
}: {
  hang: Hang;
  turn?: number;
  look?: Look;
  name?: string;
  onDrawn?: (picture: string) => void;
}) {
  const [picture, setPicture] = useState<string | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { shape, places } = hang;
  useEffect(() => {
    if (!canvas.current || !shape || !places) return;
    let hung: Hung | undefined;
    try {
      hung = new Hung(canvas.current);
      hung.begin(shape);
      hung.turned(turn);
      hung.draw(places, look, null);
      const made = canvas.current.toDataURL();
      setPicture(made);
      onDrawn?.(made);
    } catch {
      setPicture(null); // a browser without WebGL: the figures stand beside it
    } finally {
      hung?.dispose();
    }
  }, [shape, places, turn, look, onDrawn]);
  return picture ? (
    <img src={picture} alt={name} className="h-72 w-full object-contain" />
  ) : (
    <canvas ref={canvas} aria-hidden className="h-72 w-full" />
  );
}
