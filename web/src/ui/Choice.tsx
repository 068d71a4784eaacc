import { RadioGroup } from "radix-ui";
import type { Unit } from "../api/client";
import { text } from "../text";

type Value = string | number | boolean;

/** One of a few, as a list to go through with the arrow keys. */
export function ChoiceList({
  label,
  value,
  choices,
  onChoose,
}: {
  label: string;
  value: Value | null;
  choices: { value: Value; text: string }[];
  onChoose: (value: Value) => void;
}) {
  const chosen = choices.find((choice) => choice.value === value);
  return (
    <RadioGroup.Root
      aria-label={label}
      value={chosen ? String(chosen.value) : ""}
      onValueChange={(next) => {
        const picked = choices.find((choice) => String(choice.value) === next);
        if (picked) onChoose(picked.value);
      }}
      className="flex flex-col"
    >
      {choices.map((choice) => (
        <RadioGroup.Item
          key={String(choice.value)}
          value={String(choice.value)}
          className="flex min-h-8 items-center gap-2 rounded-sm px-2 text-left hover:bg-lining data-[state=checked]:font-semibold"
        >
          <span aria-hidden className="w-3 text-center">
            {choice.value === value ? "•" : ""}
          </span>
          {choice.text}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}

/** One of two or three, side by side. */
export function Switcher<T extends string>({
  label,
  value,
  choices,
  onChoose,
}: {
  label: string;
  value: T;
  choices: { value: T; text: string }[];
  onChoose: (value: T) => void;
}) {
  return (
    <RadioGroup.Root
      aria-label={label}
      orientation="horizontal"
      value={value}
      onValueChange={(next) => onChoose(next as T)}
      className="inline-flex overflow-hidden rounded-sm border border-pencil"
    >
      {choices.map((choice) => (
        <RadioGroup.Item
          key={choice.value}
          value={choice.value}
          className="min-h-7 min-w-8 px-2 hover:bg-lining data-[state=checked]:bg-ink data-[state=checked]:text-paper"
        >
          {choice.text}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}

/** Centimetres or inches. */
export function UnitSwitch({ value, onChoose }: { value: Unit; onChoose: (unit: Unit) => void }) {
  return (
    <Switcher
      label={text.unit}
      value={value}
      choices={[
        { value: "cm", text: "cm" },
        { value: "in", text: "in" },
      ]}
      onChoose={onChoose}
    />
  );
}
