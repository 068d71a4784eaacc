import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Screen } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { readingOf } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";

const MARGIN = 30;

/** Two schools for one figure: outlines over each other, lengths beside each other. */
export function SchoolsCompared({ screen, onClose }: { screen: Screen; onClose: () => void }) {
  const now = String((screen.recipe.bodice as Record<string, unknown>).kind);
  const others = screen.bodices.filter(
    (choice) => choice.kind !== now && !["measured", "bib"].includes(choice.kind),
  );
  const [chosen, setChosen] = useState(others[0]?.kind ?? "");
  const { data, error } = useQuery({
    queryKey: ["compare", chosen, screen.unit, screen.recipe],
    placeholderData: (before) => before,
    queryFn: () =>
      answer(
        api.POST("/api/compare/{kind}", {
          params: { path: { kind: chosen }, query: readingOf(screen.unit) },
          body: screen.recipe,
        }),
      ),
  });
  const [left = 0, top = 0, width = 1, height = 1] = data?.box ?? [];
  return (
    <section aria-label={text.compare} className="flex min-h-0 min-w-0 flex-1 flex-col bg-paper">
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_17rem]">
        <svg
          data-testid="compared"
          role="img"
          aria-label={data ? `${data.mine}; ${data.theirs}` : text.compare}
          viewBox={`${left - MARGIN} ${top - MARGIN} ${width + 2 * MARGIN} ${height + 2 * MARGIN}`}
          className="size-full"
          fill="none"
        >
          {data?.my_outlines.map((d) => (
            <path key={d} d={d} stroke="var(--color-ink)" strokeWidth={2.2} />
          ))}
          {data?.their_outlines.map((d) => (
            <path key={d} d={d} stroke="var(--color-pencil)" strokeWidth={2.2} strokeDasharray="9 5" />
          ))}
        </svg>
        <div className="overflow-auto border-l border-chalk px-3 py-2 text-sm">
          <table className="w-full" data-testid="compared-rows">
            <thead className="text-left text-pencil">
              <tr>
                <th scope="col">{text.comparedEdge}</th>
                <th scope="col">{text.comparedHere}</th>
                <th scope="col">{text.comparedThere}</th>
              </tr>
            </thead>
            <tbody>
              {data?.rows.map((row) => (
                <tr key={row.label} className="border-t border-chalk">
                  <th scope="row" className="pr-1 text-left font-normal">
                    {row.label}
                  </th>
                  <td className="pr-1">{row.mine}</td>
                  <td>
                    {row.theirs}
                    <span className="block text-pencil">{row.difference}</span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </div>
      <div className="flex min-h-14 flex-wrap items-center gap-x-4 gap-y-1 border-t border-chalk px-4 py-2">
        <Wrong error={error} />
        <p>
          <span aria-hidden className="mr-1.5 inline-block w-7 border-t-2 border-ink align-middle" />
          {data?.mine}
        </p>
        <label className="flex items-center gap-1.5">
          <span
            aria-hidden
            className="inline-block w-7 border-t-2 border-dashed border-pencil align-middle"
          />
          <span className="sr-only">{text.compareWith}</span>
          <select
            value={chosen}
            onChange={(event) => setChosen(event.target.value)}
            className="min-h-8 rounded-sm border border-pencil bg-paper px-1.5"
          >
            {others.map((choice) => (
              <option key={choice.kind} value={choice.kind}>
                {choice.title}
              </option>
            ))}
          </select>
        </label>
        <Button className="ml-auto" onClick={onClose}>
          {text.backToSheet}
        </Button>
      </div>
    </section>
  );
}
