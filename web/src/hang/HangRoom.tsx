import { lazy, Suspense, useCallback, useEffect, useRef, useState } from "react";
import { answer, api, type Recipe, type Unit } from "../api/client";
import type { Changes } from "../recipe/draft";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Switcher } from "../ui/Choice";
import { Wrong } from "../ui/Wrong";
import Beside from "./Beside";
import { HemRibbon } from "./HemRibbon";
import type { Look } from "./scene";
import { useHanging } from "./useHanging";

// three.js is large, and nothing but this asks for it
const Picture = lazy(() => import("./Picture"));

/** She is about to ask for it: what it takes is read in meanwhile. */
export const makeReady = () => void api.POST("/api/hangs/ready");

/** What of a recipe is sewn: it is the same dress in another unit. */
const sewnOf = ({ unit: _unit, name: _name, ...sewn }: Recipe) => JSON.stringify(sewn);

/** A hung dress as it goes on paper: its pictures by the side they are seen from, and what it says. */
export interface HungPaper {
  pictures: Record<string, string>;
  said: string[];
}

/** Where the pictures of a dress at rest are, by the side it is seen from. */
const picturesOf = (number: number) =>
  Object.fromEntries(
    Object.entries(text.hang.sides).map(([view, side]) => [side, `/api/hangs/${number}/pictures/${view}`]),
  );

/** The dress hung on her form before it is cut: let fall, turned, read. */
export function HangRoom({
  recipe,
  unit,
  onChange,
  onPaper,
  kept,
  onClose,
}: {
  recipe: Recipe;
  unit: Unit;
  onChange: (changes: Changes) => void;
  /** What of it is printed with the dress; null while nothing hangs that is this recipe. */
  onPaper: (hung: HungPaper | null) => void;
  /** The dress whose version this recipe is; null while it is not saved. */
  kept: { commission: number; version: number } | null;
  onClose: () => void;
}) {
  const { hang, wrong, begin, stop } = useHanging(unit);
  const [of, setOf] = useState<Recipe | null>(null);
  const [look, setLook] = useState<Look>("shaded");
  const [when, setWhen] = useState<"now" | "later">("now");
  const now = useRef(recipe);
  now.current = recipe;
  const hangIt = useCallback(() => {
    setOf(now.current);
    begin(now.current);
  }, [begin]);
  useEffect(hangIt, [hangIt]);

  /** Why its pictures are not kept with the dress. */
  const [notKept, setNotKept] = useState<unknown>(null);

  const rest = hang?.rest ?? null;
  const falls = hang?.state === "falling";
  const isSame = of !== null && sewnOf(of) === sewnOf(recipe);
  const number = hang?.number;
  useEffect(() => {
    onPaper(rest && isSame && number ? { pictures: picturesOf(number), said: rest.said } : null);
  }, [onPaper, rest, isSame, number]);
  useEffect(() => () => onPaper(null), [onPaper]);
  const restsAs = rest && isSame ? number : undefined;
  const [commission, version] = [kept?.commission, kept?.version];
  useEffect(() => {
    if (restsAs === undefined || commission === undefined || version === undefined) return;
    setNotKept(null);
    answer(
      api.PUT("/api/commissions/{commission_id}/versions/{version}/hung", {
        params: { path: { commission_id: commission, version } },
        body: { hang: restsAs },
      }),
    ).catch(setNotKept);
  }, [restsAs, commission, version]);
  const steps = (recipe as { steps: unknown[] }).steps;
  return (
    <section
      aria-label={text.hang.title}
      data-testid="hang"
      data-state={hang?.state}
      className="grid min-h-0 min-w-0 grid-cols-[minmax(0,2fr)_minmax(0,3fr)] bg-paper max-[820px]:row-span-2 max-[820px]:block max-[820px]:overflow-auto"
    >
      <div className="flex min-h-0 flex-col bg-linen max-[820px]:h-[32rem]">
        {hang?.shape ? (
          <Suspense fallback={<p className="p-5 text-pencil">{text.loading}</p>}>
            <Picture hang={hang} look={look} later={when === "later"} />
          </Suspense>
        ) : (
          <p className="flex-1 p-5 text-pencil">{falls || !hang ? text.hang.state.falling : ""}</p>
        )}
        <div className="no-print flex flex-wrap gap-3 px-3 pb-2">
          <Switcher
            label={text.hang.look}
            value={look}
            choices={(["shaded", "ink", "tight"] as Look[]).map((value) => ({
              value,
              text: text.hang.looks[value],
            }))}
            onChoose={setLook}
          />
          {look === "tight" && (
            <p className="flex items-center gap-2 text-[15.5px]">
              <span aria-hidden className="inline-block size-4 bg-thread" />
              {text.hang.tightest}
            </p>
          )}
          {rest && (
            <Switcher
              label={text.hang.when}
              value={when}
              choices={(["now", "later"] as const).map((value) => ({ value, text: text.hang.whens[value] }))}
              onChoose={setWhen}
            />
          )}
        </div>
      </div>
      <div className="min-h-0 overflow-auto px-5 py-3">
        <div className="mb-1 flex flex-wrap items-baseline justify-between gap-3">
          <h2 className="font-title text-2xl">{text.hang.title}</h2>
          <Button className="no-print" onClick={onClose}>
            {text.backToSheet}
          </Button>
        </div>
        <p className="mb-2 text-pencil">{text.hang.how}</p>
        <p role="status" className="font-semibold">
          {hang ? text.hang.state[hang.state] : text.hang.state.falling}
        </p>
        {hang?.trouble && <p role="alert">{hang.trouble}</p>}
        <Wrong error={wrong} />
        <Wrong error={notKept} />
        <p className="no-print my-2 flex flex-wrap items-center gap-3">
          {falls && <Button onClick={stop}>{text.hang.stop}</Button>}
          {hang && !falls && <Button onClick={hangIt}>{text.hang.again}</Button>}
          {of !== null && !isSame && <span>{text.hang.changed}</span>}
        </p>
        {hang && rest && (
          <>
            <ul
              aria-label={text.hang.words}
              data-testid="hang-words"
              className="mb-3 list-disc space-y-0.5 pl-5"
            >
              {rest.said.map((sentence) => (
                <li key={sentence}>{sentence}</li>
              ))}
            </ul>
            {rest.hem && <HemRibbon hem={rest.hem} of={rest.right_hem ? "left" : "both"} />}
            {rest.right_hem && <HemRibbon hem={rest.right_hem} of="right" />}
            {rest.hem?.step && isSame && (
              <Button
                className="no-print my-3"
                onClick={() => onChange({ steps: [...steps, rest.hem?.step] })}
              >
                {text.hang.level}
              </Button>
            )}
            {isSame &&
              rest.wedges.map(({ edge, step }) => (
                <Button
                  key={edge}
                  className="no-print my-3"
                  onClick={() => onChange({ steps: [...steps, step] })}
                >
                  {text.hang.pinch(edge)}
                </Button>
              ))}
            {of && <Beside key={`beside ${hang.number}`} hang={hang} recipe={of} unit={unit} />}
            <section aria-label={text.hang.pictures} className="mt-4">
              <h3 className="mb-1 flex flex-wrap items-baseline gap-3 font-title text-xl">
                {text.hang.pictures}
                {isSame && (
                  <Button className="text-base" onClick={() => window.print()}>
                    {text.hang.print}
                  </Button>
                )}
              </h3>
              <div className="grid grid-cols-3 gap-2">
                {Object.entries(picturesOf(hang.number)).map(([side, picture]) => (
                  <figure key={picture} className="min-w-0">
                    <img src={picture} alt={text.hang.seen(side)} className="h-72 w-full object-contain" />
                    <figcaption className="text-center">{side}</figcaption>
                  </figure>
                ))}
              </div>
            </section>
          </>
        )}
      </div>
    </section>
  );
}
