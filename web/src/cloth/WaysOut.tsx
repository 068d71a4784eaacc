import { useQuery } from "@tanstack/react-query";
import { answer, api, type Lay, type Recipe, type Unit } from "../api/client";
import { Drawing } from "../dress/Dress";
import type { Changes } from "../recipe/draft";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Folded } from "../ui/Folded";
import { readingOf } from "../ui/preferences";

type AskedOf = Lay["asked"];

/** What else can be cut from a cloth that is too narrow or too short: made, laid, priced and drawn. */
export function WaysOut({
  recipe,
  unit,
  asked,
  onChange,
  onLay,
}: {
  recipe: Recipe;
  unit: Unit;
  asked: AskedOf;
  onChange: (changes: Changes) => void;
  onLay: (asked: AskedOf) => void;
}) {
  const ways = useQuery({
    queryKey: ["ways-out", recipe, unit, asked],
    queryFn: () =>
      answer(
        api.POST("/api/lays/ways", {
          params: { query: readingOf(unit) },
          body: { recipe: recipe as never, asked },
        }),
      ),
    retry: false,
  });
  return (
    <section aria-label={text.lays.ways} className="my-2">
      <h4 className="font-semibold">{text.lays.ways}</h4>
      {ways.isFetching && (
        <p role="status" className="text-pencil">
          {text.lays.trying}
        </p>
      )}
      {ways.isError && <p role="alert">{text.lost}</p>}
      {ways.data?.length === 0 && <p>{text.lays.noWay}</p>}
      <ol className="grid grid-cols-[repeat(auto-fill,minmax(15.5rem,1fr))] gap-2">
        {ways.data?.map((way) => (
          <li key={way.text}>
            <button
              type="button"
              onClick={() => (way.changes ? onChange(way.changes) : way.asked && onLay(way.asked))}
              className="flex h-full w-full items-center gap-3 rounded-sm border border-pencil bg-card p-2 text-left hover:bg-lining"
            >
              {way.drawing && (
                <span className="block h-24 w-20 shrink-0">
                  <Drawing view={way.drawing} className="h-full w-full" />
                </span>
              )}
              <span>
                <span className="block font-semibold">{way.text}</span>
                <span className="text-pencil">{text.lays.takes(way.buy, way.cost)}</span>
              </span>
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** The cloth first: every kind of lower part, as long as this cloth makes it on this figure. */
export function MadeFrom(asking: {
  recipe: Recipe;
  unit: Unit;
  asked: AskedOf;
  onChange: (changes: Changes) => void;
}) {
  return <Folded title={text.lays.madeFrom}>{() => <Made {...asking} />}</Folded>;
}

function Made({
  recipe,
  unit,
  asked,
  onChange,
}: {
  recipe: Recipe;
  unit: Unit;
  asked: AskedOf;
  onChange: (changes: Changes) => void;
}) {
  const made = useQuery({
    queryKey: ["made-from", recipe, unit, asked],
    queryFn: () =>
      answer(
        api.POST("/api/lays/made-from", {
          params: { query: readingOf(unit) },
          body: { recipe: recipe as never, asked },
        }),
      ),
    retry: false,
  });
  return (
    <>
      {made.isFetching && <p role="status">{text.lays.trying}</p>}
      {made.isError && <p role="alert">{text.lost}</p>}
      <ul>
        {made.data?.map((one) => (
          <li
            key={one.title}
            className="flex max-w-xl items-center justify-between gap-4 border-t border-chalk py-0.5"
          >
            <span>
              <strong>{one.title}</strong>{" "}
              {one.length ? (
                text.lays.longAtMost(one.length)
              ) : (
                <span className="text-pencil">{text.lays.not}</span>
              )}
            </span>
            {one.length && (
              <Button look="quiet" onClick={() => onChange(one.changes)}>
                {text.lays.makeIt}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
