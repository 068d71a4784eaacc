import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Fittings, type NoteIn, type Screen, type Try } from "../api/client";
import type { Touched } from "../dress/Dress";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Choose } from "../ui/Choose";
import { readingOf } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";

const words = text.fittings;

/** Something seen at a fitting: what it is, where, how much; and what may be tried about it, looked at before it is taken. */
export function NewNote({
  guide,
  screen,
  place,
  onNowhere,
  looked,
  onLook,
  onNote,
}: {
  guide: Fittings["guide"];
  screen: Screen;
  place: Touched | null;
  onNowhere: () => void;
  /** The correction that is shown on the dress now. */
  looked: string | null;
  onLook: (one: Try | null) => void;
  /** Whether it was written down. */
  onNote: (said: Omit<NoteIn, "visit">, taken: Try | null) => Promise<boolean>;
}) {
  const [seen, setSeen] = useState("");
  const [side, setSide] = useState<NonNullable<NoteIn["side"]>>("both");
  const [amount, setAmount] = useState("");
  const [own, setOwn] = useState("");
  const one = guide.find((each) => each.code === seen);
  const tries = useQuery({
    queryKey: ["tries", screen.recipe, screen.unit, seen, amount, side],
    enabled: one !== undefined,
    queryFn: () =>
      answer(
        api.POST("/api/fittings/tries", {
          params: { query: readingOf(screen.unit) },
          body: { recipe: screen.recipe as never, seen, amount, side },
        }),
      ),
    placeholderData: (before) => before,
    retry: false,
  });
  /** What is shown is still of what was seen, or typed, before: it can be read on, and not taken. */
  const isOfBefore = tries.isPlaceholderData;
  const say = async (taken: Try | null) => {
    const written = await onNote(
      {
        seen,
        side,
        piece: place?.piece ?? "",
        edge: place?.edge ?? "",
        text: own,
        amount: taken?.mm ?? (amount ? tries.data?.[0]?.mm : undefined) ?? null,
        taken: taken?.code ?? "",
      },
      taken,
    );
    if (!written) return; // what she said stays, to be sent again
    setSeen("");
    setAmount("");
    setOwn("");
  };
  const regions = [...new Set(guide.map((each) => each.region))];
  return (
    <section aria-label={words.seen} className="space-y-2">
      <div className="flex flex-wrap items-center gap-2">
        <label htmlFor="seen" className="sr-only">
          {words.seen}
        </label>
        <select
          id="seen"
          value={seen}
          onChange={(event) => {
            setSeen(event.target.value);
            onLook(null);
          }}
          className="min-h-9 max-w-full rounded-sm border border-pencil bg-paper px-1.5"
        >
          <option value="">{words.choose}</option>
          {regions.map((region) => (
            <optgroup key={region} label={words.regions[region]}>
              {guide
                .filter((each) => each.region === region)
                .map((each) => (
                  <option key={each.code} value={each.code}>
                    {each.seen}
                  </option>
                ))}
            </optgroup>
          ))}
        </select>
      </div>
      {one && (
        <>
          <div className="flex items-start gap-4">
            <svg viewBox="0 0 100 132" aria-hidden="true" className="h-32 shrink-0" fill="none">
              <path d={one.garment} stroke="var(--color-pencil)" strokeWidth="1.2" />
              <path d={one.shows} stroke="var(--color-ink)" strokeWidth="2.6" strokeLinecap="round" />
            </svg>
            <p>
              <span className="text-pencil">{words.likely}</span> {one.likely}.
            </p>
          </div>
          <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
            <span className="flex items-center gap-2">
              <label htmlFor="seen-side">{words.side}</label>
              <Choose
                id="seen-side"
                value={side}
                choices={words.sides}
                onChoose={(value) => {
                  setSide(value as typeof side);
                  onLook(null);
                }}
              />
            </span>
            <span className="flex items-center gap-2">
              <label htmlFor="seen-amount">{words.amount}</label>
              <input
                id="seen-amount"
                value={amount}
                placeholder={words.usual}
                onChange={(event) => setAmount(event.target.value)}
                className="w-36 rounded-sm border border-pencil bg-paper px-1.5 py-1"
              />
            </span>
          </div>
          <p className="text-pencil">
            {place ? `${words.place}: ${place.piece}, ${place.edge}` : words.nowhere}
            {place && (
              <Button look="quiet" className="ml-2" onClick={onNowhere}>
                {words.anywhere}
              </Button>
            )}
          </p>
          <div>
            <label htmlFor="seen-text" className="block">
              {words.text}
            </label>
            <textarea
              id="seen-text"
              rows={2}
              maxLength={1000}
              value={own}
              onChange={(event) => setOwn(event.target.value)}
              className="w-full rounded-sm border border-pencil bg-paper px-2 py-1"
            />
          </div>
          <Wrong error={tries.error} />
          <h4 className="font-title text-lg">{words.tries}</h4>
          <ul className="space-y-3">
            {!tries.error &&
              tries.data?.map((each) => (
                <li key={each.code} className="border-l-[3px] border-chalk pl-3">
                  <p className="font-semibold">
                    {each.title}: {each.amount}
                  </p>
                  {each.changes === null ? (
                    <p className="text-thread">{each.refused}</p>
                  ) : (
                    <>
                      <p className="text-pencil">
                        {each.follows.length > 0
                          ? `${words.follows} ${each.follows.map((follow) => follow.text).join("; ")}.`
                          : words.nothingFollows}
                      </p>
                      {each.opens.length > 0 && (
                        <p className="text-thread">{words.opens(each.opens.join(", "))}</p>
                      )}
                      <p className="mt-1 flex gap-2">
                        <Button
                          disabled={isOfBefore}
                          aria-pressed={looked === each.code}
                          onClick={() => onLook(looked === each.code ? null : each)}
                        >
                          {looked === each.code ? words.away : words.look}
                        </Button>
                        <Button className="font-semibold" disabled={isOfBefore} onClick={() => say(each)}>
                          {words.take}
                        </Button>
                      </p>
                    </>
                  )}
                </li>
              ))}
          </ul>
          {looked && (
            <p role="status" className="text-pencil">
              {words.tried}
            </p>
          )}
          <Button disabled={isOfBefore && amount !== ""} onClick={() => say(null)}>
            {words.note}
          </Button>
        </>
      )}
    </section>
  );
}
