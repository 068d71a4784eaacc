import type { Unit } from "../api/client";
import type { View } from "./Sheet";

const LEAST_GAP = 9;

/** True-scale rulers along the top and the left of the sheet, in the maker's unit. */
export function Rulers({
  view,
  size,
  unit,
}: {
  view: View;
  size: { width: number; height: number };
  unit: Unit;
}) {
  const base = unit === "in" ? 25.4 : 10;
  const steps = unit === "in" ? [0.125, 0.25, 0.5, 1, 2, 6, 12, 36] : [0.1, 0.5, 1, 2, 5, 10, 20, 50, 100];
  const small = (steps.find((step) => (step * base) / view.perPixel >= LEAST_GAP) ?? 100) * base;
  const every = unit === "in" ? 4 : 5;
  const marks = (from: number, length: number) => {
    const first = Math.ceil(from / small);
    const count = Math.floor((length * view.perPixel) / small);
    return Array.from({ length: Math.max(0, count + 1) }, (_, i) => first + i);
  };
  const label = (index: number) => String(Math.round(((index * small) / base) * 1000) / 1000);
  return (
    <svg aria-hidden width={size.width} height={size.height} className="pointer-events-none absolute inset-0">
      <rect width={size.width} height={17} fill="var(--color-lining)" />
      <rect width={17} height={size.height} fill="var(--color-lining)" />
      <g stroke="var(--color-pencil)" fill="var(--color-ink)" fontSize={10.5}>
        {marks(view.x, size.width).map((index) => {
          const x = (index * small - view.x) / view.perPixel;
          const tall = index % every === 0;
          return (
            <g key={index}>
              <line x1={x} x2={x} y1={tall ? 8 : 12} y2={17} />
              {tall && x > 20 && (
                <text x={x + 2} y={10} stroke="none">
                  {label(index)}
                </text>
              )}
            </g>
          );
        })}
        {marks(view.y, size.height).map((index) => {
          const y = (index * small - view.y) / view.perPixel;
          const tall = index % every === 0;
          return y > 17 ? <line key={index} y1={y} y2={y} x1={tall ? 6 : 12} x2={17} /> : null;
        })}
        <text x={3} y={12} stroke="none" fontWeight={700}>
          {unit}
        </text>
      </g>
    </svg>
  );
}
