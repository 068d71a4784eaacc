import { useMutation } from "@tanstack/react-query";
import { useId } from "react";
import { answer, api, type Sitting } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Wrong } from "../ui/Wrong";

const words = text.days;

/** A fitting to be agreed: at another time it is tried first, and what would move is said before it is kept. */
export function Fitting({
  sitting,
  at,
  onAt,
  onKept,
}: {
  sitting: Sitting;
  /** The time that is being agreed; null while none is. */
  at: string | null;
  onAt: (at: string | null) => void;
  onKept: () => void;
}) {
  const id = useId();
  const agree = useMutation({
    mutationFn: (keep: boolean) =>
      answer(api.PUT("/api/calendar/fitting", { body: { commission: sitting.commission, at, keep } })),
  });
  const giveUp = useMutation({
    mutationFn: () =>
      answer(
        api.PUT("/api/calendar/fitting", {
          body: { commission: sitting.commission, at: null, keep: true },
        }),
      ),
  });
  if (at === null) {
    return (
      <span className="ml-2">
        <span className="text-pencil">{sitting.agreed ? words.agreed : words.toAgree}</span>{" "}
        <Button className="no-print" onClick={() => onAt(sitting.start.slice(0, 16))}>
          {sitting.agreed ? words.another : words.agree}
        </Button>
        {sitting.agreed && (
          <Button
            look="quiet"
            className="no-print"
            onClick={() => giveUp.mutate(undefined, { onSuccess: onKept })}
          >
            {words.notAgreed}
          </Button>
        )}
        <Wrong error={giveUp.error} />
      </span>
    );
  }
  const leave = () => {
    onAt(null);
    agree.reset();
  };
  return (
    <form
      aria-label={words.agree}
      className="my-1 max-w-prose border-l-[3px] border-ink bg-card px-3 py-2"
      onSubmit={(event) => {
        event.preventDefault();
        agree.mutate(false);
      }}
    >
      <div className="flex flex-wrap items-center gap-2">
        <label htmlFor={id}>{words.when}</label>
        <input
          id={id}
          type="datetime-local"
          required
          value={at}
          onChange={(event) => {
            onAt(event.target.value);
            agree.reset();
          }}
          className="rounded-sm border border-pencil bg-paper px-2 py-1"
        />
        <Button type="submit">{words.see}</Button>
        <Button look="quiet" onClick={leave}>
          {words.leave}
        </Button>
      </div>
      <Wrong error={agree.error} />
      {agree.data && (
        <div role="status" className="mt-2">
          <ul>
            {agree.data.moves.length === 0 && <li>{words.nothingMoves}</li>}
            {agree.data.moves.map((said) => (
              <li key={said}>{said}</li>
            ))}
            {[...agree.data.late, ...agree.data.conflicts].map((said) => (
              <li key={said.text} className="font-semibold text-thread">
                {said.text}
              </li>
            ))}
          </ul>
          <Button
            className="mt-2 font-semibold"
            onClick={() => agree.mutate(true, { onSuccess: () => [leave(), onKept()] })}
          >
            {words.keep}
          </Button>
        </div>
      )}
    </form>
  );
}
