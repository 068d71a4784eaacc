import type { Screen } from "../api/client";
import { text } from "../text";

export type Draft = NonNullable<Screen["draft"]>;

const MARGIN = 40;

/** The draft on its paper with its letters, up to a step; that step in red where one is being played. */
export function DraftPaper({
  draft,
  upTo = draft.steps.length - 1,
  playing = false,
  onStep,
  className,
}: {
  draft: Draft;
  upTo?: number;
  playing?: boolean;
  onStep?: (step: number) => void;
  className?: string;
}) {
  const [left, top, width, height] = draft.box;
  const drawn = draft.steps.slice(0, upTo + 1);
  return (
    <svg
      data-testid="draft"
      viewBox={`${left - MARGIN} ${top - MARGIN} ${width + 2 * MARGIN} ${height + 2 * MARGIN}`}
      className={className}
      fill="none"
      strokeLinecap="round"
      {...(onStep ? {} : { role: "img", "aria-label": text.draft.drawn })}
    >
      {drawn.map((step, index) => (
        <g
          // biome-ignore lint/suspicious/noArrayIndexKey: a step is known by its place in the draft
          key={index}
          stroke={playing && index === upTo ? "var(--color-thread)" : "var(--color-ink)"}
          strokeWidth={playing && index === upTo ? 4 : 1.6}
        >
          {step.strokes.map((d) => (
            <path key={d} d={d} />
          ))}
        </g>
      ))}
      {drawn.flatMap((step, index) =>
        step.points.map((point) => (
          <g
            key={`${step.half}${point.name}`}
            {...(onStep && {
              role: "button",
              tabIndex: 0,
              "aria-label": `${text.halves[step.half]} ${point.name}`,
              className: "cursor-pointer",
              onClick: () => onStep(index),
              onKeyDown: (event: React.KeyboardEvent) => event.key === "Enter" && onStep(index),
            })}
          >
            <circle cx={point.x} cy={point.y} r={14} fill="transparent" />
            <circle cx={point.x} cy={point.y} r={4} fill="var(--color-ink)" />
            <text x={point.x + 7} y={point.y - 7} fontSize={17} fontWeight={700} fill="var(--color-ink)">
              {point.name}
            </text>
          </g>
        )),
      )}
    </svg>
  );
}

/** The draft as it stands in the workings: its drawing with the letters, and each step with its number. */
export function DraftSteps({ draft }: { draft: Draft }) {
  return (
    <>
      <DraftPaper draft={draft} className="draft-drawn mx-auto max-h-96 w-full" />
      <ol data-testid="draft-steps" className="mt-1 mb-3 list-decimal pl-8">
        {draft.steps.map((step) => (
          <li key={`${step.half}${step.text}`}>
            {text.halves[step.half]}: {step.text}
            {step.points.length > 0 && (
              <strong className="pl-2">{step.points.map((point) => point.name).join(", ")}</strong>
            )}
          </li>
        ))}
      </ol>
    </>
  );
}
