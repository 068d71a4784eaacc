import { useQuery } from "@tanstack/react-query";
import { answer, api, type Recipe, type Unit } from "../api/client";
import type { Changes } from "../recipe/draft";
import { text } from "../text";
import { Button } from "../ui/Button";
import { readingOf } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";

/** What was learnt of the cloths of this dress at others, with the change that takes it. */
export function Advice({
  recipe,
  unit,
  onChange,
}: {
  recipe: Recipe;
  unit: Unit;
  onChange: (changes: Changes) => void;
}) {
  const advice = useQuery({
    queryKey: ["cloth advice", recipe, unit],
    queryFn: () =>
      answer(api.POST("/api/cloth-advice", { params: { query: readingOf(unit) }, body: recipe as never })),
    placeholderData: (before) => before,
    retry: false,
  });
  if (advice.error) return <Wrong error={advice.error} />;
  if (!advice.data?.length) return null;
  return (
    <section aria-label={text.learnt.advice} className="mb-3 border-l-[3px] border-basting pl-3">
      <h3 className="font-title text-xl">{text.learnt.advice}</h3>
      <ul>
        {advice.data.map((one) => (
          <li key={one.text} className="flex flex-wrap items-baseline gap-x-3">
            <span>
              <span className="font-semibold">{one.cloth}.</span> {one.text}
            </span>
            {Object.keys(one.changes).length > 0 && (
              <Button onClick={() => onChange(one.changes)}>{text.learnt.take}</Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
