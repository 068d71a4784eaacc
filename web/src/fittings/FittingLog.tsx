import { useEffect, useState } from "react";
import type { Commission, Fittings, Screen, Try } from "../api/client";
import type { Touched } from "../dress/Dress";
import type { Bench } from "../recipe/useRecipe";
import { text } from "../text";
import { Button } from "../ui/Button";
import { day as spoken, today } from "../ui/day";
import { pdfQuery } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";
import { NewNote } from "./NewNote";
import { Photographs } from "./Photographs";
import { useFittings } from "./useFittings";

const words = text.fittings;

/** The log of fittings beside the drawn dress: what was seen at each, what was taken, and what to try now. */
export function FittingLog({
  commission,
  screen,
  bench,
  touched,
  onTried,
  onClose,
}: {
  commission: Commission;
  screen: Screen;
  bench: Bench;
  touched: Touched | null;
  onTried: (made: Screen | null) => void;
  onClose: () => void;
}) {
  const { log, begin, note, wish, intoBlock } = useFittings(commission.id, commission.person.id, screen.unit);
  const [looked, setLooked] = useState<string | null>(null);
  /** The edge touched last: the hand goes on to the words, and it stays. */
  const [place, setPlace] = useState(touched);
  useEffect(() => {
    if (touched) setPlace(touched);
  }, [touched]);
  const wrong = log.error ?? begin.error ?? note.error ?? wish.error ?? intoBlock.error;
  const made = log.data;
  const visits = [...(made?.visits ?? [])].reverse();
  const look = async (one: Try | null) => {
    setLooked(one?.code ?? null);
    onTried(one?.changes ? await bench.preview(one.changes) : null);
  };
  return (
    <section aria-label={words.title} className="min-h-0 min-w-0 flex-1 overflow-auto bg-paper px-5 py-3">
      <div className="mb-1 flex flex-wrap items-baseline justify-between gap-3">
        <h2 className="font-title text-2xl">{words.title}</h2>
        <span className="flex items-baseline gap-4">
          <a
            href={`/api/commissions/${commission.id}/appointment.pdf?${pdfQuery(screen.unit)}`}
            download
            className="underline underline-offset-4 hover:bg-lining"
          >
            {words.sheet}
          </a>
          <Button
            onClick={() => {
              onTried(null);
              onClose();
            }}
          >
            {text.backToSheet}
          </Button>
        </span>
      </div>
      <Wrong error={wrong} />
      {made?.ask_again.map((said) => (
        <p key={said} className="my-2 border-l-[3px] border-thread pl-3">
          {said}
        </p>
      ))}
      {made && <ForBlock made={made} onPut={(seen) => intoBlock.mutate(seen)} />}
      {made && visits[0]?.on_day !== today() && (
        <p className="my-2">
          <Button className="font-semibold" onClick={() => begin.mutate(today())}>
            {words.begin}
          </Button>
        </p>
      )}
      {made && visits.length === 0 && <p className="text-pencil">{words.none}</p>}
      {visits.map((visit, k) => (
        <article
          key={visit.id}
          aria-label={words.on(spoken(visit.on_day))}
          className="mb-5 border-t border-chalk pt-2"
        >
          <h3 className="font-title text-xl">{words.on(spoken(visit.on_day))}</h3>
          <Wishes
            key={visit.wishes}
            id={`wishes-${visit.id}`}
            kept={visit.wishes}
            onKeep={(wishes) => wish.mutate({ visit: visit.id, wishes })}
          />
          <Photographs visit={visit} onKept={() => log.refetch()} />
          <ul className="my-2 list-disc space-y-1 pl-5">
            {visit.notes.map((one) => (
              <li key={one.id}>
                {one.seen}
                {one.side !== "both" && `, ${words.sides.find(([side]) => side === one.side)?.[1]}`}
                {one.piece && `, ${one.piece} ${one.edge}`}
                {one.amount && `, ${one.amount}`}
                {one.text && `: “${one.text}”`}
                {one.taken && <span className="block font-semibold">{words.taken(one.taken)}</span>}
              </li>
            ))}
          </ul>
          {k === 0 && (
            <NewNote
              guide={made?.guide ?? []}
              screen={screen}
              place={place}
              onNowhere={() => setPlace(null)}
              looked={looked}
              onLook={look}
              onNote={async (said, taken) => {
                const over = taken ? bench.kept.version : null;
                try {
                  await note.mutateAsync({ visit: visit.id, ...said, over_version: over });
                } catch {
                  return false; // it is said above, and what was typed stays
                }
                look(null);
                if (taken?.changes) bench.change(taken.changes);
                return true;
              }}
            />
          )}
        </article>
      ))}
    </section>
  );
}

function ForBlock({ made, onPut }: { made: Fittings; onPut: (seen: string) => void }) {
  return (
    <>
      {made.proposed.length > 0 && (
        <section aria-label={words.proposed} className="my-2 border-l-[3px] border-thread pl-3">
          <h3 className="font-title text-xl">{words.proposed}</h3>
          {made.proposed.map((one) => (
            <p key={one.seen} className="mb-1">
              {one.text}{" "}
              <Button className="font-semibold" onClick={() => onPut(one.seen)}>
                {words.put}
              </Button>
            </p>
          ))}
        </section>
      )}
      {made.in_block.length > 0 && (
        <p className="my-2 text-pencil">
          {words.inBlock}: {made.in_block.map((one) => one.text).join("; ")}.
        </p>
      )}
    </>
  );
}

function Wishes({ id, kept, onKeep }: { id: string; kept: string; onKeep: (wishes: string) => void }) {
  const [typed, setTyped] = useState(kept);
  return (
    <form
      className="flex items-start gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed !== kept) onKeep(typed);
      }}
    >
      <label htmlFor={id} className="pt-1 text-pencil">
        {words.wishes}
      </label>
      <textarea
        id={id}
        rows={2}
        maxLength={2000}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={(event) => event.currentTarget.form?.requestSubmit()}
        className="min-w-0 flex-1 rounded-sm border border-pencil bg-paper px-2 py-1"
      />
      <Button type="submit" disabled={typed === kept}>
        {words.keepWishes}
      </Button>
    </form>
  );
}
