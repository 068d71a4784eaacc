import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Days, done, type Hours } from "../api/client";

export const SHOWN = 14;

/** So many days of the workroom from one on, and what is done to them. */
export function useDays(start: string) {
  const kept = useQueryClient();
  const key = ["days", start];
  const query = { start, days: SHOWN };
  const days = useQuery({
    queryKey: key,
    queryFn: () => answer(api.GET("/api/calendar", { params: { query } })),
    placeholderData: (before) => before,
    retry: false,
  });
  const again = () => kept.invalidateQueries({ queryKey: ["days"] });
  const layOut = useMutation({
    mutationFn: () => answer(api.POST("/api/calendar/lay-out", { params: { query } })),
    onSuccess: (now: Days) => {
      kept.setQueryData(key, now);
      return again();
    },
  });
  const keepHours = useMutation({
    mutationFn: (hours: Hours) => done(api.PUT("/api/calendar/hours", { body: hours })),
    onSuccess: again,
  });
  return { days, layOut, keepHours, again };
}
