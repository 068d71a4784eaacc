import type { Edge, Piece } from "../api/client";

/** How far inside its edge a length stands, and about how wide and high a letter of it is, in pixels. */
const AWAY = 17;
const LETTER = 7;
const LINE = 15;

export interface Label {
  at: number;
  y: number;
  anchor: "start" | "middle" | "end";
}

export interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** Where an edge's length stands: beside its middle, on the piece's side of the line. */
export function labelOf(edge: Edge, px: number): Label {
  const [x, y] = edge.outward;
  return {
    at: edge.middle[0] - x * AWAY * px,
    y: edge.middle[1] - y * AWAY * px,
    anchor: x > 0.5 ? "end" : x < -0.5 ? "start" : "middle",
  };
}

/** The room a line of words takes. */
export function room(words: string, { at, y, anchor }: Label, px: number, lines = 1): Box {
  const width = words.length * LETTER * px;
  const left = anchor === "start" ? at : anchor === "end" ? at - width : at - width / 2;
  const half = (LINE / 2) * px;
  return { left, right: left + width, top: y - half, bottom: y + half + (lines - 1) * 2 * half };
}

const apart = (a: Box, b: Box) =>
  a.right <= b.left || b.right <= a.left || a.bottom <= b.top || b.bottom <= a.top;

/** The edges whose lengths can be read together: in order round the piece, leaving out what would cover its name or another. */
export function labelsApart(piece: Piece, px: number, title: Box | null): Set<string> {
  const taken = title ? [title] : [];
  const shown = new Set<string>();
  for (const edge of piece.edges) {
    const box = room(edge.length, labelOf(edge, px), px);
    if (taken.every((other) => apart(other, box))) {
      taken.push(box);
      shown.add(edge.name);
    }
  }
  return shown;
}
