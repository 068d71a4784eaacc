import type { Operation, Screen } from "../api/client";
import { text } from "../text";

const MOST = 6;

/** The pieces of an operation small, each by itself, with the edges it works on in a heavy line. */
export function SeamSketch({ operation, sheet }: { operation: Operation; sheet: Screen["sheet"] }) {
  const worked = new Set(operation.edges.map((one) => `${one.piece}/${one.edge}`));
  const names = [...new Set(operation.edges.map((one) => one.piece))].slice(0, MOST);
  const pieces = sheet.pieces.filter((piece) => names.includes(piece.name));
  if (pieces.length === 0) return null;
  return (
    <figure aria-label={text.making.drawing} className="flex flex-wrap gap-3">
      {pieces.map((piece) => {
        const [left, top, wide, high] = piece.box;
        const line = Math.max(wide, high) / 150;
        return (
          <div key={piece.name} className="w-26">
            <svg
              viewBox={`${left - 4 * line} ${top - 4 * line} ${wide + 8 * line} ${high + 8 * line}`}
              role="img"
              aria-label={piece.name}
              className="h-26 w-26"
            >
              <path d={piece.cut_line} className="fill-card stroke-basting" strokeWidth={line} />
              <path d={piece.seam_line} className="fill-none stroke-chalk" strokeWidth={line} />
              {piece.notches.map((d) => (
                <path key={d} d={d} className="fill-none stroke-pencil" strokeWidth={line} />
              ))}
              {piece.edges
                .filter((edge) => worked.has(`${piece.name}/${edge.name}`))
                .map((edge) => (
                  <path key={edge.name} d={edge.d} className="fill-none stroke-ink" strokeWidth={4 * line} />
                ))}
            </svg>
            <figcaption className="text-[15px] leading-tight text-pencil">{piece.name}</figcaption>
          </div>
        );
      })}
    </figure>
  );
}
