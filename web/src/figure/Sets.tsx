import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Screen } from "../api/client";
import type { Bench } from "../recipe/useRecipe";
import { text } from "../text";
import { Button } from "../ui/Button";
import { readingOf } from "../ui/preferences";
import { refusal } from "./FigureTable";

/** A person's dated sets: kept beside each other, never overwritten, compared with what is on the table. */
export function Sets({ screen, bench, person }: { screen: Screen; bench: Bench; person: number }) {
  const books = useQueryClient();
  const [chosen, setChosen] = useState("");
  const [said, setSaid] = useState("");
  const sets = useQuery({
    queryKey: ["sets", person],
    queryFn: () =>
      answer(api.GET("/api/people/{person_id}/figures", { params: { path: { person_id: person } } })),
  });
  const figure = screen.recipe.figure as { taken_on: string; measures: Record<string, number> };
  const other = sets.data?.find((set) => String(set.id) === chosen);
  const compared = useQuery({
    queryKey: ["compared sets", other?.id, figure, screen.unit],
    enabled: other !== undefined,
    queryFn: () =>
      answer(
        api.POST("/api/figures/compare", {
          params: { query: readingOf(screen.unit) },
          body: {
            before: { taken_on: other?.taken_on ?? "", measures: other?.measures ?? {} } as never,
            now: { taken_on: figure.taken_on, measures: figure.measures } as never,
          },
        }),
      ),
  });
  const keep = async () => {
    try {
      await answer(
        api.POST("/api/people/{person_id}/figures", {
          params: { path: { person_id: person } },
          body: { taken_on: figure.taken_on, measures: figure.measures },
        }),
      );
      setSaid(text.figure.keptSet);
      books.invalidateQueries({ queryKey: ["sets", person] });
    } catch (error) {
      setSaid(figure.taken_on ? refusal(error) : text.figure.needsDay);
    }
  };
  const day = (iso: string) =>
    new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeZone: "UTC" }).format(new Date(iso));
  return (
    <div className="mt-3 border-t border-chalk pt-2">
      <div className="flex flex-wrap items-center gap-2">
        <Button onClick={keep}>{text.figure.keepSet}</Button>
        <label className="flex items-center gap-2">
          {text.figure.compareWith}
          <select
            value={chosen}
            onChange={(event) => setChosen(event.target.value)}
            className="min-h-8 rounded-sm border border-pencil bg-paper px-1.5"
          >
            <option value="">{text.figure.noSet}</option>
            {sets.data?.map((set) => (
              <option key={set.id} value={set.id}>
                {day(set.taken_on)}, {text.figure.measures(Object.keys(set.measures).length)}
              </option>
            ))}
          </select>
        </label>
        {other && (
          <Button
            onClick={() =>
              bench.change({ "figure.measures": other.measures, "figure.taken_on": other.taken_on })
            }
          >
            {text.figure.useSet}
          </Button>
        )}
        <p role="status" className="text-sm text-pencil">
          {said}
        </p>
      </div>
      {other && compared.data && (
        <>
          {compared.data.findings.map((finding) => (
            <p key={finding.text} className="text-thread">
              {finding.text}
            </p>
          ))}
          <table className="mt-1 w-full text-sm" data-testid="sets-compared">
            <thead className="text-left text-pencil">
              <tr>
                <th scope="col">{text.figure.measure}</th>
                <th scope="col">{day(other.taken_on)}</th>
                <th scope="col">{text.figure.now}</th>
                <th scope="col">{text.figure.change}</th>
              </tr>
            </thead>
            <tbody>
              {compared.data.rows.map((row) => (
                <tr key={row.label} className="border-t border-chalk">
                  <th scope="row" className="text-left font-normal">
                    {row.label}
                  </th>
                  <td>{row.before}</td>
                  <td>{row.now}</td>
                  <td>{row.difference}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </div>
  );
}
