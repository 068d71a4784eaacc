import type { Screen } from "../api/client";
import { text } from "../text";

/** What is cut, a row each: its name, how many, how large. */
export const cutList = (screen: Screen) =>
  screen.sheet.pieces.map((piece) => [
    piece.name,
    `${text.cut(piece.cut, piece.on_fold)}, ${piece.material}`,
    `${piece.width} × ${piece.height}`,
  ]);

/** Every seam, a row each: its name, both its lengths, whether it walks. */
export const seamList = (screen: Screen) =>
  screen.seams.map((seam) => [seam.name, `${seam.length_a} / ${seam.length_b}`, seam.verdict]);
