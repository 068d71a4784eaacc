import type { ReactNode } from "react";

/** A key of the keyboard, as it is named. */
export function Key({ children }: { children: ReactNode }) {
  return (
    <kbd className="ml-1 rounded-sm border border-chalk px-1.5 font-body text-sm text-pencil">{children}</kbd>
  );
}
