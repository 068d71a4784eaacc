import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useParams } from "react-router";
import { answer, api, done } from "../api/client";
import { Slips } from "../pages/Desk";
import { text } from "../text";
import { Button } from "../ui/Button";
import { day } from "../ui/day";
import { preferredUnit, readingOf } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";
import { PersonWays } from "./PersonWays";

/** One person: her dresses, her own blocks, and her measures over time. */
export function PersonPage() {
  const id = Number(useParams().id);
  const unit = preferredUnit.use();
  const person = useQuery({
    queryKey: ["person", id, unit],
    queryFn: () =>
      answer(
        api.GET("/api/people/{person_id}", { params: { path: { person_id: id }, query: readingOf(unit) } }),
      ),
    retry: false,
  });
  const outOfBlock = useMutation({
    mutationFn: (seen: string) =>
      done(api.DELETE("/api/people/{person_id}/block/{seen}", { params: { path: { person_id: id, seen } } })),
    onSuccess: () => person.refetch(),
  });
  const name = person.data?.name;
  useEffect(() => {
    if (name) document.title = `${name} · ${text.title}`;
  }, [name]);
  if (person.isError) {
    return (
      <main className="p-10">
        <p className="mb-4 text-xl">{text.away}</p>
        <Link to="/people" className="underline">
          {text.people.title}
        </Link>
      </main>
    );
  }
  if (!person.data) return <main className="p-10 text-pencil">{text.loading}</main>;
  const { taken_on, measures, blocks, in_block: inBlock, dresses } = person.data;
  return (
    <main className="flex-1 overflow-auto px-7 py-4">
      <PersonWays key={id} person={person.data} onSaid={() => person.refetch()} />
      <section aria-label={text.people.dresses} className="bg-linen px-3 pt-2">
        {dresses.length ? (
          <Slips rows={dresses} dated named={false} />
        ) : (
          <p className="py-3">{text.people.noDress}</p>
        )}
      </section>
      {blocks.length > 0 && (
        <section aria-labelledby="blocks" className="mt-4">
          <h2 id="blocks" className="font-title text-2xl">
            {text.people.blocks}
          </h2>
          <ul>
            {blocks.map((block) => (
              <li key={block.commission}>
                <Link to={`/commission/${block.commission}`} className="underline">
                  {block.title}
                </Link>
                : {block.kind}
              </li>
            ))}
          </ul>
        </section>
      )}
      {inBlock.length > 0 && (
        <section aria-labelledby="in-block" className="mt-4">
          <h2 id="in-block" className="font-title text-2xl">
            {text.fittings.inBlock}
          </h2>
          <ul>
            {inBlock.map((one) => (
              <li key={one.seen}>
                {one.text}{" "}
                <Button onClick={() => outOfBlock.mutate(one.seen)}>{text.fittings.outOfBlock}</Button>
              </li>
            ))}
          </ul>
          <Wrong error={outOfBlock.error} />
        </section>
      )}
      <section aria-labelledby="over-time" className="mt-4">
        <h2 id="over-time" className="font-title text-2xl">
          {text.people.overTime}
        </h2>
        {measures.length === 0 && <p>{text.people.noSet}</p>}
        {measures.length > 0 && (
          <div className="overflow-auto">
            <table className="border-collapse">
              <thead>
                <tr className="text-left text-pencil">
                  <th scope="col" className="py-1 pr-6 font-normal">
                    {text.figure.measure}
                  </th>
                  {taken_on.map((taken, place) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: two sets may be of one day
                    <th key={place} scope="col" className="py-1 pr-6 text-right font-normal">
                      {day(taken)}
                    </th>
                  ))}
                  <th scope="col" className="py-1 pr-6 font-normal" colSpan={2}>
                    {text.people.change}
                  </th>
                </tr>
              </thead>
              <tbody>
                {measures.map((measure) => (
                  <tr key={measure.label} className="border-t border-chalk">
                    <th scope="row" className="py-0.5 pr-6 text-left font-normal">
                      {measure.label}
                    </th>
                    {measure.values.map((value, place) => (
                      <td
                        // biome-ignore lint/suspicious/noArrayIndexKey: one column a set
                        key={place}
                        className={`pr-6 text-right ${isNew(measure.values, place) ? "font-semibold" : ""}`}
                      >
                        {value || "—"}
                      </td>
                    ))}
                    <td className="pr-2">{measure.change && <Trail points={measure.trail} />}</td>
                    <td className="pr-6 text-right">{measure.change}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
      </section>
    </main>
  );
}

/** Whether a measure is another than when it was last taken. */
function isNew(values: string[], place: number): boolean {
  const before = values.slice(0, place).filter(Boolean).at(-1);
  return before !== undefined && values[place] !== "" && values[place] !== before;
}

/** A measure over time, drawn as a line that rises and falls. */
function Trail({ points }: { points: { along: number; up: number }[] }) {
  if (points.length < 2) return null;
  const at = points.map(({ along, up }) => [4 + along * 72, 18 - up * 14] as const);
  return (
    <svg width="80" height="22" aria-hidden="true">
      <polyline points={at.map((point) => point.join(",")).join(" ")} fill="none" stroke="currentColor" />
      {at.map(([x, y]) => (
        <circle key={x} cx={x} cy={y} r="2" fill="currentColor" />
      ))}
    </svg>
  );
}
