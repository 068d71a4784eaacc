import { ArrowUp, X } from "lucide-react";
import type { Screen } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import type { Bench } from "./useRecipe";

const LOOK = "min-h-8 rounded-sm border border-pencil bg-paper px-1.5";

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
  return (
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
  );
}

const added = (bench: Bench) => (bench.draft.trims as Record<string, unknown>[] | undefined) ?? [];

/** What is added to the garment: choose it and it appears as a sentence of its own. */
export function AddTrim({ screen, bench }: { screen: Screen; bench: Bench }) {
  return (
    <section id="part-trims" aria-label={text.adding} className="no-print border-b border-chalk px-5 py-3">
      <select
        aria-label={text.adding}
        value=""
        onChange={(event) => {
          const chosen = screen.trims.find((choice) => choice.kind === event.target.value);
          if (chosen) bench.change({ trims: [...added(bench), chosen.part] });
        }}
        className={LOOK}
      >
        <option value="">{text.addTrim}</option>
        {screen.trims.map((choice) => (
          <option key={choice.kind} value={choice.kind}>
            {choice.title}
          </option>
        ))}
      </select>
    </section>
  );
}

/** Take an added part away, or make it up before the one above it. */
export function TrimTools({ where, title, bench }: { where: string; title: string; bench: Bench }) {
  const place = Number(where.split(".")[1]);
  const trims = added(bench);
  const earlier = () => {
    const order = [...trims];
    const [moved] = order.splice(place, 1);
    if (moved) order.splice(place - 1, 0, moved);
    bench.change({ trims: order });
  };
  return (
    <div className="no-print flex gap-2">
      <Button
        look="quiet"
        aria-label={text.takeAway(title)}
        onClick={() => bench.change({ trims: trims.filter((_, k) => k !== place) })}
      >
        <X size={16} />
      </Button>
      {place > 0 && (
        <Button look="quiet" aria-label={text.earlier(title)} onClick={earlier}>
          <ArrowUp size={16} />
        </Button>
      )}
    </div>
  );
}
