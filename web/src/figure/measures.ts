import { answer, api } from "../api/client";

/** Every measure in the order of the tape, as the core has it; asked for once. */
export const MEASURES = {
  queryKey: ["measures"],
  queryFn: () => answer(api.GET("/api/measures")),
  staleTime: Infinity,
};
