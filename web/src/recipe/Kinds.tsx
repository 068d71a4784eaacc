import { ArrowUp, Eye, EyeOff, X } from "lucide-react";
import { type FormEvent, useState } from "react";
import type { Screen } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { WhatIs } from "../ui/Meaning";
import type { Bench } from "./useRecipe";

export const LOOK = "min-h-8 max-w-full rounded-sm border border-pencil bg-paper px-1.5";

type Choice = Screen["lowers"][number];

/** Which set of allowances the garment has: another set changes them all at once. */
export function AllowanceSet({ screen, bench }: { screen: Screen; bench: Bench }) {
  const now = JSON.stringify(screen.recipe.allowances);
  const kind = screen.allowances.find((choice) => JSON.stringify(choice.part) === now)?.kind;
  return (
    <Kinds
      label={text.allowancesBy}
      kind={kind ?? ""}
      choices={screen.allowances}
      onChoose={(part) => bench.change({ allowances: part })}
    />
  );
}

/** Which kind a part is: another kind begins with the words it shares with the last. */
export function KindOf({
  label,
  where,
  choices,
  screen,
  bench,
}: {
  label: string;
  where: "lower" | "band";
  choices: Choice[];
  screen: Screen;
  bench: Bench;
}) {
  const kind = String((screen.recipe[where] as Record<string, unknown>).kind);
  return (
    <Kinds label={label} kind={kind} choices={choices} onChoose={(part) => bench.change({ [where]: part })} />
  );
}

function Kinds({
  label,
  kind,
  choices,
  onChoose,
}: {
  label: string;
  kind: string;
  choices: Choice[];
  onChoose: (part: Choice["part"]) => void;
}) {
  const chosenNow = choices.find((choice) => choice.kind === kind)?.title;
  return (
    <>
      <select
        aria-label={label}
        value={kind}
        onChange={(event) => {
          const chosen = choices.find((choice) => choice.kind === event.target.value);
          if (chosen) onChoose(chosen.part);
        }}
        className={`no-print ${LOOK}`}
      >
        {choices.map((choice) => (
          <option key={choice.kind} value={choice.kind}>
            {choice.title}
          </option>
        ))}
      </select>
      {chosenNow && <WhatIs label={chosenNow} />}
    </>
  );
}

/** The lists of a recipe: what is done to its pieces, and what is added to it. */
type List = "steps" | "trims";

export const listed = (bench: Bench, list: List) =>
  (bench.draft[list] as Record<string, unknown>[] | undefined) ?? [];

/**
 * What is done or added: choose it, add it, and it appears as a sentence of its own. Choosing alone adds nothing, so
 * that the list can be gone through with the arrow keys.
 */
export function AddTo({ list, screen, bench }: { list: List; screen: Screen; bench: Bench }) {
  const [kind, setKind] = useState("");
  const label = list === "steps" ? text.stepping : text.adding;
  const chosen = screen[list].find((choice) => choice.kind === kind);
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (!chosen) return;
    bench.change({ [list]: [...listed(bench, list), chosen.part] });
    setKind("");
  };
  return (
    <form id={`part-${list}`} aria-label={label} onSubmit={add} className="no-print flex gap-2 px-6 py-2">
      <select
        aria-label={label}
        value={kind}
        onChange={(event) => setKind(event.target.value)}
        className={`min-w-0 flex-1 ${LOOK}`}
      >
        <option value="">{list === "steps" ? text.addStep : text.addTrim}</option>
        {screen[list].map((choice) => (
          <option key={choice.kind} value={choice.kind}>
            {choice.title}
          </option>
        ))}
      </select>
      <Button type="submit" disabled={!chosen}>
        {text.add}
      </Button>
    </form>
  );
}

/** Take a listed part away, do it before the one above it, or leave a step off for a while. */
export function ListTools({ where, title, bench }: { where: string; title: string; bench: Bench }) {
  const [list, at] = where.split(".") as [List, string];
  const place = Number(at);
  const parts = listed(bench, list);
  const put = (changed: Record<string, unknown>[]) => bench.change({ [list]: changed });
  const earlier = () => {
    const order = [...parts];
    const [moved] = order.splice(place, 1);
    if (moved) order.splice(place - 1, 0, moved);
    put(order);
  };
  const isOff = parts[place]?.off === true;
  return (
    <div className="no-print flex gap-2">
      <Button
        look="quiet"
        aria-label={text.takeAway(title)}
        onClick={() => put(parts.filter((_, k) => k !== place))}
      >
        <X size={16} />
      </Button>
      {place > 0 && (
        <Button look="quiet" aria-label={text.earlier(title)} onClick={earlier}>
          <ArrowUp size={16} />
        </Button>
      )}
      {list === "steps" && (
        <Button
          look="quiet"
          aria-pressed={isOff}
          aria-label={isOff ? text.putOn(title) : text.leaveOff(title)}
          onClick={() => put(parts.map((part, k) => (k === place ? { ...part, off: !isOff } : part)))}
        >
          {isOff ? <EyeOff size={16} /> : <Eye size={16} />}
          {isOff && <span>{text.leftOff}</span>}
        </Button>
      )}
    </div>
  );
}
