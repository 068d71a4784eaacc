import { text } from "../text";
import { HALF_BODY, LINES } from "./body";

/** The drawn body, front and back; the measure being taken is shown as the tape lies. */
export function Body({ held }: { held: string | null }) {
  const line = held ? LINES[held] : undefined;
  return (
    <svg
      viewBox="-75 -4 310 508"
      className="h-full max-h-[25rem] w-full"
      role="img"
      aria-label={text.figure.body}
      fill="none"
      data-held={held ?? ""}
    >
      {(["front", "back"] as const).map((side, index) => (
        <g key={side} transform={`translate(${index * 160} 0)`}>
          <g stroke="var(--color-pencil)" strokeWidth={1.4} fill="var(--color-linen)">
            <ellipse cx={0} cy={32} rx={20} ry={27} />
            <path d={HALF_BODY} />
            <path d={HALF_BODY} transform="scale(-1 1)" />
          </g>
          {side === "back" && <path d="M0 84 L0 262" stroke="var(--color-chalk)" strokeWidth={1.2} />}
          <path
            d="M0 80 L0 288"
            stroke="var(--color-chalk)"
            strokeDasharray="3 3"
            strokeWidth={side === "front" ? 0.8 : 0}
          />
          <text y={499} x={0} textAnchor="middle" fontSize={17} fill="var(--color-pencil)">
            {text.halves[side]}
          </text>
          {line?.side === side && (
            <path d={line.d} stroke="var(--color-ink)" strokeWidth={3.5} strokeLinecap="round" />
          )}
        </g>
      ))}
    </svg>
  );
}
