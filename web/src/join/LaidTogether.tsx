import { useQuery } from "@tanstack/react-query";
import { answer, api, type Screen } from "../api/client";
import { text } from "../text";
import { readingOf } from "../ui/preferences";
import { OverSheet } from "../ui/Sheet";
import { Wrong } from "../ui/Wrong";

const MARGIN = 20;

/** The two pieces of a seam laid edge to edge, as one lays them on the table to look at a corner. */
export function LaidTogether({
  screen,
  seam,
  onClose,
}: {
  screen: Screen;
  /** The seam that is looked at; nothing where none is. */
  seam: string;
  onClose: () => void;
}) {
  const { data, error } = useQuery({
    queryKey: ["laid together", seam, screen.unit, screen.recipe],
    enabled: seam !== "",
    retry: false,
    queryFn: () =>
      answer(
        api.POST("/api/laid-together", {
          params: { query: readingOf(screen.unit) },
          body: { recipe: screen.recipe, seam },
        }),
      ),
  });
  const [left = 0, top = 0, width = 1, height = 1] = data?.box ?? [];
  const thick = Math.max(width, height) / 300;
  return (
    <OverSheet
      title={text.laidTogether(seam)}
      intro={data?.sentence}
      open={seam !== ""}
      onOpenChange={(open) => !open && onClose()}
      wide="max-w-4xl"
    >
      {error ? (
        <Wrong error={error} />
      ) : (
        data && (
          <svg
            role="img"
            aria-label={`${data.one.name}, ${data.other.name}`}
            data-testid="laid-together"
            viewBox={`${left - MARGIN} ${top - MARGIN} ${width + 2 * MARGIN} ${height + 2 * MARGIN}`}
            className="h-[60vh] w-full bg-paper"
            fill="none"
          >
            {[data.one, data.other].map((piece, index) => (
              <g
                key={index === 0 ? "one" : "other"}
                stroke={`var(--color-${index === 0 ? "ink" : "thread"})`}
              >
                <path d={piece.outline} strokeWidth={thick} />
                <path d={piece.edge} strokeWidth={thick * 2.5} />
              </g>
            ))}
          </svg>
        )
      )}
      {data && (
        <p className="mt-2 text-lg">
          <span aria-hidden className="mr-1.5 inline-block w-7 border-t-2 border-ink align-middle" />
          {data.one.name}
          <span aria-hidden className="mr-1.5 ml-4 inline-block w-7 border-t-2 border-thread align-middle" />
          {data.one.name === data.other.name ? text.turnedOver(data.other.name) : data.other.name}
        </p>
      )}
    </OverSheet>
  );
}
