import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, done, type Plan, type Recipe, type SaidOfOperation, type Unit } from "../api/client";
import { readingOf } from "../ui/preferences";

/** What can be said of an operation. */
export type Said = Omit<SaidOfOperation, "operation">;

/** The making plan of the dress on the bench, and what the maker says of it. */
export function usePlan(commission: number, recipe: Recipe, unit: Unit) {
  const kept = useQueryClient();
  const key = ["plan", commission];
  const path = { params: { path: { commission_id: commission }, query: readingOf(unit) } };
  const plan = useQuery({
    queryKey: [...key, recipe, unit],
    queryFn: () =>
      answer(api.POST("/api/commissions/{commission_id}/plan", { ...path, body: recipe as never })),
    placeholderData: (before) => before,
    retry: false,
  });
  const say = useMutation({
    mutationFn: ({ operation, ...said }: Said & { operation: string }) =>
      answer(
        api.PUT("/api/commissions/{commission_id}/plan/operation", {
          ...path,
          body: { operation, ...said },
        }),
      ),
    // what was said is of the dress as it is saved; what is on the bench may be ahead of it
    onSuccess: (now: Plan) => {
      kept.setQueryData([...key, recipe, unit], now);
      return kept.invalidateQueries({ queryKey: key });
    },
  });
  const choose = useMutation({
    mutationFn: (school: Plan["school"]) =>
      done(
        api.PUT("/api/commissions/{commission_id}/plan/school", {
          params: { path: { commission_id: commission } },
          body: { school },
        }),
      ),
    onSuccess: () => kept.invalidateQueries({ queryKey: key }),
  });
  return { plan, say, choose };
}
