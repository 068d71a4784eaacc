import { Popover } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import type { Unit, Word } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { ChoiceList } from "../ui/Choice";
import { LengthField } from "../ui/LengthField";
import { Meaning } from "../ui/Meaning";

/** A word of a recipe sentence that can be changed where it stands. */
export function LiveWord({
  word,
  unit,
  problem,
  typed,
  onChange,
}: {
  word: Word;
  unit: Unit;
  problem?: string;
  typed?: string;
  onChange: (value: unknown) => void;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <button
          type="button"
          aria-label={`${word.label}: ${word.text}${word.struck ? `, ${text.leftOut}` : ""}`}
          data-word={word.path}
          className={`inline rounded-sm border-b-2 border-dotted px-0.5 text-left font-semibold hover:bg-lining ${
            problem ? "border-thread text-thread" : "border-pencil"
          } ${word.struck ? "line-through decoration-2 decoration-thread" : ""} data-[state=open]:bg-lining`}
        >
          {problem && typed ? typed : word.text}
          {problem && <span className="sr-only"> ({problem})</span>}
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={10}
          aria-label={word.label}
          className="z-20 max-h-[70vh] max-w-80 overflow-auto rounded-sm border border-pencil bg-paper p-3 shadow-lg"
          onKeyDown={(event) => {
            if (event.key === "Enter") {
              event.preventDefault();
              setOpen(false);
            }
          }}
        >
          <Editor word={word} unit={unit} problem={problem} typed={typed} onChange={onChange} />
          {word.help && <p className="mt-2 text-pencil">{word.help}</p>}
          <div className="mt-2">
            <Meaning label={word.label} />
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Editor({
  word,
  unit,
  problem,
  typed,
  onChange,
}: {
  word: Word;
  unit: Unit;
  problem?: string;
  typed?: string;
  onChange: (value: unknown) => void;
}) {
  const without = word.optional && (
    <Button look="quiet" className="mt-1 w-full" onClick={() => onChange(null)}>
      {text.leaveOut}: {withoutText(word)}
    </Button>
  );
  if (word.sort === "choice") {
    return <ChoiceList label={word.label} value={word.value} choices={word.choices} onChoose={onChange} />;
  }
  if (word.sort === "length") {
    return (
      <>
        <LengthField
          label={word.label}
          shown={typed ?? word.typed}
          value={typeof word.value === "number" ? word.value : null}
          unit={unit}
          problem={problem}
          autoFocus
          onType={(next) => onChange(next.trim() === "" && word.optional ? null : next)}
          onStep={onChange}
        />
        {without}
        {word.choices.length > 0 && (
          <div className="mt-2 border-t border-chalk pt-2">
            <ChoiceList
              label={`${text.presets}: ${word.label}`}
              value={word.value}
              choices={word.choices}
              onChoose={onChange}
            />
          </div>
        )}
        <p className="mt-2 max-w-64 text-sm text-pencil">{text.step}</p>
      </>
    );
  }
  return <NumberEditor word={word} problem={problem} typed={typed} onChange={onChange} />;
}

function withoutText(word: Word): string {
  return word.value === null ? word.text : word.help || "—";
}

/** A share is stepped by one in a hundred. */
const HUNDREDTH = 0.01;

/** A plain number or a share, with the usual ones by name. */
function NumberEditor({
  word,
  problem,
  typed,
  onChange,
}: {
  word: Word;
  problem?: string;
  typed?: string;
  onChange: (value: unknown) => void;
}) {
  const [mine, setMine] = useState<string | null>(typed ?? null);
  /** The number stepped to, ahead of the core, so that each press counts however quickly they come. */
  const standing = useRef<number | null>(null);
  useEffect(() => {
    if (standing.current === word.value) standing.current = null;
  }, [word.value]);
  const share = word.sort === "share";
  const shown = mine ?? (share ? word.typed : String(word.value ?? ""));
  return (
    <div>
      <label className="block">
        <span className="block text-pencil">{word.label}</span>
        <input
          type="text"
          inputMode="decimal"
          // biome-ignore lint/a11y/noAutofocus: the field is the whole of a popover that was just opened
          autoFocus
          value={shown}
          aria-invalid={problem ? true : undefined}
          onFocus={(event) => event.target.select()}
          onChange={(event) => {
            setMine(event.target.value);
            standing.current = null;
            onChange(event.target.value.replace(",", "."));
          }}
          onKeyDown={(event) => {
            const direction = event.key === "ArrowUp" ? 1 : event.key === "ArrowDown" ? -1 : 0;
            if (!direction || typeof word.value !== "number") return;
            event.preventDefault();
            setMine(null);
            const from = standing.current ?? word.value;
            const step = (event.shiftKey ? 10 : 1) * (share ? HUNDREDTH : 1);
            standing.current = share
              ? Math.min(Math.max(from + direction * step, 0), 1)
              : from + direction * step;
            onChange(standing.current);
          }}
          className="w-28 rounded-sm border border-pencil bg-paper px-2 py-1 text-xl aria-invalid:border-2 aria-invalid:border-thread"
        />
      </label>
      {problem && (
        <p role="alert" className="mt-1 max-w-64 text-thread">
          {problem}
        </p>
      )}
      {word.choices.length > 0 && (
        <div className="mt-2 border-t border-chalk pt-2">
          <ChoiceList
            label={`${text.presets}: ${word.label}`}
            value={word.value}
            choices={word.choices}
            onChoose={(value) => {
              setMine(null);
              onChange(value);
            }}
          />
        </div>
      )}
    </div>
  );
}
