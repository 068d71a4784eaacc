import { useMutation, useQuery } from "@tanstack/react-query";
import { answer, api, type Screen } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { readingOf } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";
import type { Bench } from "./useRecipe";

/** What is in her block, for a dress that was not begun with it: a bodice whose school was chosen only now. */
export function HerBlock({ person, screen, bench }: { person: number; screen: Screen; bench: Bench }) {
  const path = { params: { path: { person_id: person }, query: readingOf(screen.unit) } };
  const block = useQuery({
    queryKey: ["block", person, screen.unit],
    queryFn: () => answer(api.GET("/api/people/{person_id}/block", path)),
  });
  const take = useMutation({
    mutationFn: () =>
      answer(api.POST("/api/people/{person_id}/block/into-dress", { ...path, body: screen.recipe as never })),
    onSuccess: (changes) => bench.change(changes),
  });
  if (!block.data?.length) return null;
  return (
    <section aria-label={text.fittings.hers} className="no-print px-6 py-2">
      <p className="mb-1 text-pencil">
        {text.fittings.hers} {block.data.map((one) => one.text).join("; ")}.
      </p>
      <Button disabled={take.isPending} onClick={() => take.mutate()}>
        {text.fittings.intoDress}
      </Button>
      <Wrong error={take.error} />
    </section>
  );
}
