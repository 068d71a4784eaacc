import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";

/** What the program says of the place it stands in: the demo studio or the maker's own. */
export function useStudio() {
  return useQuery({
    queryKey: ["studio"],
    queryFn: () => answer(api.GET("/api/studio")),
    staleTime: Number.POSITIVE_INFINITY,
  }).data;
}
