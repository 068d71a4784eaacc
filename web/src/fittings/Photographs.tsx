import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { api, done, type Fittings, upload } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { day } from "../ui/day";
import { Wrong } from "../ui/Wrong";

const words = text.fittings;

/** The photographs taken at a fitting, and a new one laid in. They stay in the records on this machine. */
export function Photographs({ visit, onKept }: { visit: Fittings["visits"][number]; onKept: () => void }) {
  const file = useRef<HTMLInputElement>(null);
  const keep = useMutation({
    mutationFn: (chosen: File) => upload<number>(`/api/fittings/${visit.id}/photographs`, chosen),
    onSuccess: onKept,
  });
  const drop = useMutation({
    mutationFn: (number: number) =>
      done(api.DELETE("/api/photographs/{number}", { params: { path: { number } } })),
    onSuccess: onKept,
  });
  return (
    <div className="my-2">
      {visit.photographs.length > 0 && (
        <ul className="mb-1 flex flex-wrap gap-3">
          {visit.photographs.map((number, place) => (
            <li key={number} className="relative">
              <a href={`/api/photographs/${number}`} target="_blank" rel="noreferrer">
                <img
                  src={`/api/photographs/${number}`}
                  alt={words.photographed(day(visit.on_day), place + 1)}
                  className="h-28 rounded-sm border border-chalk"
                />
              </a>
              <Button
                look="quiet"
                className="no-print absolute top-0 right-0 bg-paper"
                aria-label={words.dropPhotograph(place + 1)}
                onClick={() => drop.mutate(number)}
              >
                ×
              </Button>
            </li>
          ))}
        </ul>
      )}
      <Button className="no-print" disabled={keep.isPending} onClick={() => file.current?.click()}>
        {keep.isPending ? words.keeping : words.photograph}
      </Button>
      <input
        ref={file}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        aria-label={`${words.photograph} ${day(visit.on_day)}`}
        tabIndex={-1}
        className="sr-only"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = "";
          if (chosen) keep.mutate(chosen);
        }}
      />
      <Wrong error={keep.error ?? drop.error} />
    </div>
  );
}
