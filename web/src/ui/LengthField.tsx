import { type KeyboardEvent, useEffect, useId, useRef, useState } from "react";
import { api } from "../api/client";

const STEP = { cm: [1, 10], in: [3.175, 25.4] } as const;

/**
 * A length as it is written by hand. What is typed goes up as text and is read by the core;
 * arrow keys step the number itself. What was typed stays, whatever comes back.
 */
export function LengthField({
  label,
  shown,
  value,
  unit,
  problem,
  autoFocus = false,
  hideLabel = false,
  onType,
  onStep,
}: {
  label: string;
  shown: string;
  value: number | null;
  unit: "cm" | "in";
  problem?: string;
  autoFocus?: boolean;
  hideLabel?: boolean;
  onType: (typed: string) => void;
  onStep: (mm: number) => void;
}) {
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState<string | null>(null);
  /** What stands in the field now, ahead of the core: a text as typed, or a number stepped to. */
  const standing = useRef<{ text: string | null; mm: number | null }>({ text: null, mm: null });
  const steps = useRef(Promise.resolve());

  useEffect(() => {
    if (autoFocus) field.current?.select();
  }, [autoFocus]);

  // A number that came back is what is stepped from, once it is the one stepped to.
  useEffect(() => {
    const { mm } = standing.current;
    if (mm !== null && value !== null && Math.abs(mm - value) < 1e-6) standing.current.mm = null;
  }, [value]);

  // Stepping starts from what stands in the field, which the core may not have read yet. Steps wait for one another,
  // so that each press counts however quickly they come.
  const step = (event: KeyboardEvent) => {
    const direction = event.key === "ArrowUp" ? 1 : event.key === "ArrowDown" ? -1 : 0;
    if (!direction) return;
    event.preventDefault();
    const by = direction * STEP[unit][event.shiftKey ? 1 : 0];
    steps.current = steps.current.then(async () => {
      const { text, mm } = standing.current;
      let from = mm ?? value;
      if (text !== null) {
        const read = await api.GET("/api/length", { params: { query: { text, unit } } });
        from = read.data?.mm ?? null;
      }
      if (from === null) return;
      const next = from + by;
      standing.current = { text: null, mm: next };
      setTyped(null);
      onStep(next);
    });
  };

  return (
    <div>
      <label htmlFor={id} className={hideLabel ? "sr-only" : "block text-pencil"}>
        {label}
      </label>
      <input
        id={id}
        ref={field}
        type="text"
        inputMode="text"
        autoComplete="off"
        // biome-ignore lint/a11y/noAutofocus: the field is the whole of a popover that was just opened
        autoFocus={autoFocus}
        value={typed ?? shown}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${id}-problem` : undefined}
        onChange={(event) => {
          setTyped(event.target.value);
          standing.current = { text: event.target.value, mm: null };
          onType(event.target.value);
        }}
        onBlur={() => {
          standing.current = { text: null, mm: null };
          if (!problem) setTyped(null);
        }}
        onKeyDown={step}
        className="w-40 rounded-sm border border-pencil bg-paper px-2 py-1 text-xl aria-invalid:border-2 aria-invalid:border-thread"
      />
      {problem && (
        <p id={`${id}-problem`} role="alert" className="mt-1 max-w-72 text-thread">
          {problem}
        </p>
      )}
    </div>
  );
}
