import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useParams } from "react-router";
import { answer, api, done } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { day } from "../ui/day";
import { preferredUnit, readingOf } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";
import { Slips } from "./Desk";

/** Everyone on the books. */
export function People() {
  const people = useQuery({ queryKey: ["people"], queryFn: () => answer(api.GET("/api/people/rows")) });
  useEffect(() => {
    document.title = `${text.people.title} · ${text.title}`;
  }, []);
  return (
    <main className="mx-auto w-full max-w-4xl flex-1 overflow-auto px-7 py-4">
      <h1 className="mb-3 font-title text-3xl">{text.people.title}</h1>
      {people.isError && <p role="alert">{text.lost}</p>}
      {people.data?.length === 0 && <p className="text-xl">{text.people.none}</p>}
      <ul className="border-t border-chalk">
        {people.data?.map((person) => (
          <li key={person.id} className="border-b border-chalk">
            <Link
              to={`/people/${person.id}`}
              className="grid min-h-11 grid-cols-[minmax(0,1fr)_8rem_16rem] items-baseline gap-3 px-2 py-2 hover:bg-linen max-[700px]:grid-cols-1"
            >
              <span className="font-title text-xl">{person.name}</span>
              <span>{text.dresses(person.dresses)}</span>
              <span className="text-pencil">
                {person.measured_on
                  ? text.people.measuredOn(day(person.measured_on))
                  : text.people.notMeasured}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}

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
      <h1 className="mb-2 font-title text-3xl">{name}</h1>
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
