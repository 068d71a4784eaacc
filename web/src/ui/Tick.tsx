import type { ReactNode } from "react";

/** A thing that is on or off, with its words beside it. */
export function Tick({
  on,
  onTick,
  children,
}: {
  on: boolean;
  onTick: (on: boolean) => void;
  children: ReactNode;
}) {
  return (
    <label className="flex min-h-7 items-center gap-2">
      <input
        type="checkbox"
        checked={on}
        onChange={(event) => onTick(event.target.checked)}
        className="size-4 accent-ink"
      />
      {children}
    </label>
  );
}
