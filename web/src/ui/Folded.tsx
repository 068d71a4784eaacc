import { type ReactNode, useState } from "react";

/** Something behind a line that opens it; it is there only while it is open. */
export function Folded({
  title,
  className = "",
  large = false,
  children,
}: {
  title: string;
  className?: string;
  large?: boolean;
  children: () => ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <details className={className} open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className={`min-h-7 cursor-pointer ${large ? "font-title text-xl" : ""}`}>{title}</summary>
      {open && children()}
    </details>
  );
}
