import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { day } from "../ui/day";

/** Everyone on the books, or those who were put away. */
export function People() {
  const [putAway, setPutAway] = useState(false);
  const people = useQuery({
    queryKey: ["people", putAway],
    queryFn: () => answer(api.GET("/api/people/rows", { params: { query: { put_away: putAway } } })),
  });
  useEffect(() => {
    document.title = `${text.people.title} · ${text.title}`;
  }, []);
  return (
    <main className="mx-auto w-full max-w-4xl flex-1 overflow-auto px-7 py-4">
      <div className="mb-3 flex items-baseline gap-4">
        <h1 className="font-title text-3xl">{text.people.title}</h1>
        <Button look="quiet" aria-pressed={putAway} onClick={() => setPutAway(!putAway)}>
          {putAway ? text.people.showInUse : text.people.showPutAway}
        </Button>
      </div>
      {people.isError && <p role="alert">{text.lost}</p>}
      {people.data?.length === 0 && (
        <p className="text-xl">{putAway ? text.people.nonePutAway : text.people.none}</p>
      )}
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
