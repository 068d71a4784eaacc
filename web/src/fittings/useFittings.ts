import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, done, type Fittings, type NoteIn, type Unit } from "../api/client";
import { readingOf } from "../ui/preferences";

/** The log of fittings of a dress, and what is written into it. */
export function useFittings(commission: number, person: number, unit: Unit) {
  const kept = useQueryClient();
  const key = ["fittings", commission, unit];
  const query = readingOf(unit);
  const path = { params: { path: { commission_id: commission }, query } };
  const log = useQuery({
    queryKey: key,
    queryFn: () => answer(api.GET("/api/commissions/{commission_id}/fittings", path)),
    placeholderData: (before) => before,
    retry: false,
  });
  const put = (now: Fittings) => kept.setQueryData(key, now);
  const begin = useMutation({
    mutationFn: (day: string) =>
      answer(api.POST("/api/commissions/{commission_id}/fittings", { ...path, body: { on_day: day } })),
    onSuccess: put,
  });
  const note = useMutation({
    mutationFn: ({ visit, ...body }: NoteIn & { visit: number }) =>
      answer(
        api.POST("/api/fittings/{visit_id}/notes", { params: { path: { visit_id: visit }, query }, body }),
      ),
    onSuccess: put,
  });
  const wish = useMutation({
    mutationFn: ({ visit, wishes }: { visit: number; wishes: string }) =>
      done(
        api.PUT("/api/fittings/{visit_id}/wishes", {
          params: { path: { visit_id: visit } },
          body: { wishes },
        }),
      ),
    onSuccess: () => kept.invalidateQueries({ queryKey: key }),
  });
  const intoBlock = useMutation({
    mutationFn: (seen: string) =>
      done(
        api.POST("/api/people/{person_id}/block", {
          params: { path: { person_id: person } },
          body: { seen },
        }),
      ),
    onSuccess: () => kept.invalidateQueries({ queryKey: key }),
  });
  return { log, begin, note, wish, intoBlock };
}
