import { useQuery } from "@tanstack/react-query";
import { answer, api, type Lay, type Recipe, type Unit } from "../api/client";
import type { Changes } from "../recipe/draft";
import { text } from "../text";
import { Button } from "../ui/Button";
import { pdfQuery, readingOf } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";
import { Advice } from "./Advice";
import { Chalk } from "./Chalk";
import { OneLay } from "./OneLay";

/** Every cloth of the dress as it is laid: how much of it to buy, what lies where, what does not go on it. */
export function Lays({
  commission,
  recipe,
  unit,
  onChange,
  onClose,
}: {
  commission: number;
  recipe: Recipe;
  unit: Unit;
  onChange: (changes: Changes) => void;
  onClose: () => void;
}) {
  const lays = useQuery({
    queryKey: ["lays", commission, recipe, unit],
    queryFn: () =>
      answer(
        api.POST("/api/commissions/{commission_id}/lays", {
          params: { path: { commission_id: commission }, query: readingOf(unit) },
          body: { recipe: recipe as never, asked: [] },
        }),
      ),
    placeholderData: (before) => before,
    retry: false,
  });
  return (
    <section aria-label={text.lays.title} className="min-h-0 min-w-0 overflow-auto bg-paper px-5 py-3">
      <div className="mb-1 flex items-baseline justify-between gap-3">
        <h2 className="font-title text-2xl">{text.lays.title}</h2>
        <span className="flex items-baseline gap-4">
          <a
            href={`/api/commissions/${commission}/lays/lay.pdf?${pdfQuery(unit)}`}
            download="lay.pdf"
            className="underline underline-offset-4 hover:bg-lining"
          >
            {text.lays.print}
          </a>
          <Button onClick={onClose}>{text.backToSheet}</Button>
        </span>
      </div>
      <p className="mb-2 text-pencil" role="status">
        {lays.isFetching ? text.lays.laying : text.lays.how}
      </p>
      <Wrong error={lays.error} />
      <Advice recipe={recipe} unit={unit} onChange={onChange} />
      {lays.data?.length === 0 && <p>{text.lays.nothing}</p>}
      {lays.data?.map((lay) => (
        <OneLay
          key={lay.cloth}
          commission={commission}
          recipe={recipe}
          unit={unit}
          laid={lay}
          onChange={onChange}
          onTake={(cloth) => onChange({ [PLACES[lay.cloth]]: cloth })}
        />
      ))}
      <Chalk recipe={recipe} unit={unit} />
    </section>
  );
}

/** Where a recipe says what a cloth is like. */
const PLACES: Record<Lay["cloth"], string> = {
  cloth: "cloths.outer",
  contrast: "cloths.contrast",
  lining: "cloths.lining",
  interfacing: "cloths.interfacing",
  paper: "cloths.outer",
};
