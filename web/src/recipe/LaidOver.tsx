import { useQuery } from "@tanstack/react-query";
import { answer, api, type Recipe, type Unit } from "../api/client";
import { text } from "../text";
import { readingOf } from "../ui/preferences";
import { Table } from "../ui/Table";
import { Wrong } from "../ui/Wrong";

const MARGIN = 12;

/** Two states of the dress laid over each other: every piece that is another, with its edges in numbers. */
export function LaidOver({ before, after, unit }: { before: Recipe; after: Recipe; unit: Unit }) {
  const made = useQuery({
    queryKey: ["laid over", before, after, unit],
    queryFn: () =>
      answer(api.POST("/api/overlaid", { params: { query: readingOf(unit) }, body: { before, after } })),
    retry: false,
  });
  if (!made.data) return <Wrong error={made.error} />;
  return (
    <section aria-label={text.versions.laidOver} className="mt-2">
      <p className="mb-1 text-pencil">
        <span aria-hidden className="mr-1.5 inline-block w-7 border-t-2 border-ink align-middle" />
        {text.versions.asNow}
        <span
          aria-hidden
          className="mr-1.5 ml-4 inline-block w-7 border-t-2 border-dashed border-thread align-middle"
        />
        {text.versions.asThen} {text.versions.same(made.data.same)}
      </p>
      <div className="grid grid-cols-2 gap-4 max-[700px]:grid-cols-1">
        {made.data.pieces.map((piece) => {
          const [left = 0, top = 0, width = 1, height = 1] = piece.box;
          const thick = Math.max(width, height) / 160;
          return (
            <figure key={piece.name}>
              <figcaption className="font-title text-lg">
                {piece.name}
                {!piece.before.length && ` (${text.versions.isNew})`}
                {!piece.now.length && ` (${text.versions.isGone})`}
              </figcaption>
              <svg
                role="img"
                aria-label={piece.name}
                viewBox={`${left - MARGIN} ${top - MARGIN} ${width + 2 * MARGIN} ${height + 2 * MARGIN}`}
                className="h-56 w-full bg-paper"
                fill="none"
              >
                {piece.before.map((d) => (
                  <path
                    key={d}
                    d={d}
                    stroke="var(--color-thread)"
                    strokeWidth={thick}
                    strokeDasharray={`${thick * 4} ${thick * 2.5}`}
                  />
                ))}
                {piece.now.map((d) => (
                  <path key={d} d={d} stroke="var(--color-ink)" strokeWidth={thick} />
                ))}
              </svg>
              {piece.edges.length > 0 && (
                <Table heads={text.versions.heads}>
                  {piece.edges.map((edge) => (
                    <tr key={edge.name} className="border-t border-chalk">
                      <th scope="row" className="pr-4 text-left font-normal">
                        {edge.name}
                      </th>
                      <td className="pr-4 text-right">{edge.before || "—"}</td>
                      <td className="pr-4 text-right">{edge.now || "—"}</td>
                      <td className="text-right font-semibold">{edge.difference}</td>
                    </tr>
                  ))}
                </Table>
              )}
            </figure>
          );
        })}
      </div>
    </section>
  );
}
