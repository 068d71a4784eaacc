import { Check } from "lucide-react";
import { useState } from "react";
import type { Operation, Screen } from "../api/client";
import { Costs } from "../costs/Costs";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Choose } from "../ui/Choose";
import { pdfQuery } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";
import { OneOperation } from "./OneOperation";
import { usePlan } from "./usePlan";

const words = text.making;

/** The making plan on the wall: the list one works down, and the operation in hand beside it. */
export function MakingPlan({
  commission,
  screen,
  onClose,
}: {
  commission: number;
  screen: Screen;
  onClose: () => void;
}) {
  const { plan, say, choose } = usePlan(commission, screen.recipe, screen.unit);
  const [chosen, setChosen] = useState<string | null>(null);
  const [costing, setCosting] = useState(false);
  const made = plan.data;
  const wrong = plan.error ?? say.error ?? choose.error;
  const inHand =
    made?.operations.find((one) => one.key === (chosen ?? made.next)) ?? made?.operations.at(0) ?? null;
  const left = made ? made.operations.length - made.done : 0;
  return (
    <section aria-label={words.title} className="min-h-0 min-w-0 overflow-auto bg-paper px-5 py-3">
      <div className="mb-1 flex flex-wrap items-baseline justify-between gap-3">
        <h2 className="font-title text-2xl">{words.title}</h2>
        <span className="flex items-baseline gap-4">
          <a
            href={`/api/commissions/${commission}/plan/bench-sheet.pdf?${pdfQuery(screen.unit)}`}
            download="bench-sheet.pdf"
            className="underline underline-offset-4 hover:bg-lining"
          >
            {words.print}
          </a>
          <Button look="quiet" onClick={() => setCosting(true)}>
            {text.costs.open}
          </Button>
          <Button onClick={onClose}>{text.backToSheet}</Button>
        </span>
      </div>
      {costing && <Costs commission={commission} unit={screen.unit} onClose={() => setCosting(false)} />}
      <Wrong error={wrong} />
      {made && (
        <>
          <p role="status" className="mb-2">
            {words.sum(made.operations.length, made.time)}{" "}
            {left === 0 ? words.allDone : words.left(made.done, made.left)}{" "}
            {made.stops > 0 && <strong className="text-thread">{words.stops(made.stops)}</strong>}
          </p>
          <p className="mb-3 flex flex-wrap items-center gap-2">
            <label htmlFor="school" className="text-pencil">
              {words.school}
            </label>
            <Choose
              id="school"
              value={made.asked}
              choices={words.schools}
              onChoose={(school) => choose.mutate(school as typeof made.school)}
            />
            {made.asked !== made.school && <span>{words.flatNot}</span>}
          </p>
          <div className="grid grid-cols-[minmax(15rem,2fr)_minmax(20rem,3fr)] gap-6 max-[1024px]:grid-cols-1">
            <ol aria-label={words.list} className="self-start border-t border-chalk">
              {made.operations.map((one) => (
                <Line
                  key={one.key}
                  operation={one}
                  next={one.key === made.next}
                  here={one === inHand}
                  onChoose={() => setChosen(one.key)}
                />
              ))}
            </ol>
            <div className="self-start bg-card px-4 py-3 min-[1025px]:sticky min-[1025px]:top-0 max-[1024px]:order-first">
              {inHand && (
                <OneOperation
                  key={inHand.key}
                  operation={inHand}
                  sheet={screen.sheet}
                  onSay={(said) => {
                    say.mutate({ operation: inHand.key, ...said });
                    if (said.done) setChosen(null);
                  }}
                />
              )}
            </div>
          </div>
          {made.cautions.length > 0 && (
            <div className="mt-4 max-w-prose">
              <h3 className="font-title text-xl">{words.wearer}</h3>
              <ul className="list-disc pl-5">
                {made.cautions.map((caution) => (
                  <li key={caution}>{caution}</li>
                ))}
              </ul>
            </div>
          )}
          <p className="mt-3 text-[15.5px] text-pencil">{words.practice}</p>
        </>
      )}
    </section>
  );
}

function Line({
  operation,
  next,
  here,
  onChoose,
}: {
  operation: Operation;
  next: boolean;
  here: boolean;
  onChoose: () => void;
}) {
  const done = operation.done_at !== null;
  return (
    <li className="border-b border-chalk">
      <button
        type="button"
        aria-current={here ? "step" : undefined}
        onClick={onChoose}
        className={`grid min-h-8 w-full grid-cols-[1.6rem_1.4rem_minmax(0,1fr)_auto] items-baseline gap-x-1 px-1 py-1 text-left hover:bg-lining ${here ? "bg-card font-semibold" : ""}`}
      >
        <span className="text-right text-pencil tabular-nums">{operation.number}</span>
        <span>
          {done && <Check aria-hidden size={16} className="inline" />}
          {done && <span className="sr-only">{words.doneMark}</span>}
        </span>
        <span className={done ? "text-pencil" : operation.free ? "" : "text-pencil"}>
          {operation.title}
          {next && (
            <span className="ml-2 bg-ink px-1.5 text-[15px] font-normal text-paper">{words.next}</span>
          )}
          {operation.waits_for && (
            <span className="block text-[15px] text-thread">{words.waits(operation.waits_for)}</span>
          )}
          {operation.note && (
            <span className="block text-[15px] font-normal text-pencil">{operation.note}</span>
          )}
        </span>
        <span className="text-[15px] whitespace-nowrap text-pencil">{operation.time}</span>
      </button>
    </li>
  );
}
