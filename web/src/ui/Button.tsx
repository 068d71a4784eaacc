import type { ComponentProps } from "react";

/** A plain button of the workroom. `quiet` has no border; `thread` is for what needs attention. */
export function Button({
  look = "plain",
  className = "",
  ...rest
}: ComponentProps<"button"> & { look?: "plain" | "quiet" | "thread" }) {
  const looks = {
    plain: "border border-pencil bg-paper hover:bg-lining",
    quiet: "hover:bg-lining",
    thread: "border border-thread text-thread bg-paper hover:bg-mend",
  };
  return (
    <button
      type="button"
      className={`min-h-8 rounded-sm px-2.5 py-1 text-left leading-tight disabled:opacity-45 disabled:hover:bg-transparent ${looks[look]} ${className}`}
      {...rest}
    />
  );
}
