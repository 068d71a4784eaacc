import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, Refused } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { LOOK, listed } from "./Kinds";
import type { Bench } from "./useRecipe";

const KEY = ["step-lists"];

/** Steps of this dress kept under a name, and steps kept from another done to this one. */
export function KeptSteps({ bench }: { bench: Bench }) {
  const steps = listed(bench, "steps");
  const client = useQueryClient();
  const [name, setName] = useState("");
  const [chosen, setChosen] = useState("");
  const [said, setSaid] = useState("");
  const lists = useQuery({ queryKey: KEY, queryFn: () => answer(api.GET("/api/step-lists")) });
  const there = lists.data ?? [];
  const list = there.find((one) => one.name === chosen);

  async function tell(work: () => Promise<string>) {
    try {
      setSaid(await work());
    } catch (wrong) {
      setSaid(wrong instanceof Refused ? wrong.message : text.lost);
    }
    await client.invalidateQueries({ queryKey: KEY });
  }

  const keep = (event: FormEvent) => {
    event.preventDefault();
    const called = name.trim();
    if (!called) return;
    void tell(async () => {
      const kept = await answer(
        api.PUT("/api/step-lists/{name}", { params: { path: { name: called } }, body: { steps } }),
      );
      setName("");
      return text.stepsKept(kept.name, kept.titles.length);
    });
  };

  const putOn = (event: FormEvent) => {
    event.preventDefault();
    if (!list || list.unreadable) return;
    bench.change({ steps: [...steps, ...list.steps] });
    setSaid(text.stepsPutOn(list.titles.length));
    setChosen("");
  };

  const giveUp = () =>
    void tell(async () => {
      await api.DELETE("/api/step-lists/{name}", { params: { path: { name: chosen } } });
      setChosen("");
      return text.stepsGivenUp(chosen);
    });

  if (steps.length === 0 && there.length === 0) return null;
  return (
    <section aria-label={text.keptSteps} className="no-print space-y-2 px-6 py-2">
      {there.length > 0 && (
        <form onSubmit={putOn} aria-label={text.putStepsOn} className="flex gap-2">
          <select
            aria-label={text.putStepsOn}
            value={chosen}
            onChange={(event) => setChosen(event.target.value)}
            className={`min-w-0 flex-1 ${LOOK}`}
          >
            <option value="">{text.putStepsOn}</option>
            {there.map((one) => (
              <option key={one.name} value={one.name}>
                {one.name}
              </option>
            ))}
          </select>
          <Button type="submit" disabled={!list || Boolean(list.unreadable)}>
            {text.putStepsOnShort}
          </Button>
        </form>
      )}
      {list && (
        <p className="text-pencil">
          {list.unreadable || list.titles.join(", ")}{" "}
          <Button look="quiet" onClick={giveUp}>
            {text.giveUpSteps}
          </Button>
        </p>
      )}
      {steps.length > 0 && (
        <form onSubmit={keep} aria-label={text.keepSteps} className="flex gap-2">
          <input
            type="text"
            aria-label={text.keepStepsAs}
            placeholder={text.keepStepsAs}
            maxLength={120}
            value={name}
            onChange={(event) => setName(event.target.value)}
            className={`min-w-0 flex-1 ${LOOK}`}
          />
          <Button type="submit" disabled={!name.trim()}>
            {text.keepSteps}
          </Button>
        </form>
      )}
      <p role="status" className="text-pencil empty:hidden">
        {said}
      </p>
    </section>
  );
}
