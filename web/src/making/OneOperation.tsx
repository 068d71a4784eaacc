import { TriangleAlert } from "lucide-react";
import { useState } from "react";
import type { Operation, Screen } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Choose } from "../ui/Choose";
import { SeamSketch } from "./SeamSketch";
import { Timer } from "./Timer";
import type { Said } from "./usePlan";

const words = text.making;

/** One operation large: what to do, with its numbers, and what the maker says of it. */
export function OneOperation({
  operation,
  sheet,
  onSay,
}: {
  operation: Operation;
  sheet: Screen["sheet"];
  onSay: (said: Said) => void;
}) {
  const [note, setNote] = useState<string | null>(null);
  const [minutes, setMinutes] = useState<string | null>(null);
  const done = operation.done_at !== null;
  const taken = Number((minutes ?? "").trim().replace(",", "."));
  const isNumber = (minutes ?? "").trim() !== "" && Number.isFinite(taken) && taken >= 0;
  const isWrong = minutes !== null && !isNumber;
  return (
    <article aria-label={operation.title} className="space-y-3">
      <h3 className="font-title text-[28px] leading-tight">
        {operation.number}. {operation.title}
      </h3>
      <p className="text-pencil">
        {operation.time}
        {operation.rest && `, ${words.rests(operation.rest)}`}
      </p>
      <div className="no-print flex flex-wrap items-center gap-3 pt-1">
        <Button onClick={() => onSay({ done: !done })} className="min-h-11 px-5 text-lg font-semibold">
          {done ? words.notDone : words.done}
        </Button>
        {!done && (
          <Button
            onClick={() => onSay({ timer: operation.begun_at ? "stop" : "start" })}
            className="min-h-11"
          >
            {operation.begun_at ? words.stop : words.start}
          </Button>
        )}
        {operation.begun_at && (
          <span role="timer" aria-label={words.running} className="text-2xl">
            <Timer since={operation.begun_at} spent={operation.spent} />
          </span>
        )}
      </div>
      {operation.cautions.map((caution) => (
        <p key={caution} className="flex gap-2 border-l-[3px] border-thread pl-2">
          <TriangleAlert aria-hidden size={17} className="mt-1 shrink-0 text-thread" />
          {caution}
        </p>
      ))}
      <ul className="space-y-1 text-[19px] leading-snug">
        {operation.says.map((said) => (
          <li key={said}>{said}</li>
        ))}
      </ul>
      <SeamSketch operation={operation} sheet={sheet} />
      {operation.hints.length > 0 && (
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 text-[16.5px]">
          {operation.hints.map((hint) => (
            <div key={hint.about} className="contents">
              <dt className="text-pencil">{words.hints[hint.about]}</dt>
              <dd>{hint.text}</dd>
            </div>
          ))}
        </dl>
      )}
      {operation.needs.length > 0 && (
        <div className="text-[16.5px]">
          <h4 className="text-pencil">{words.after}</h4>
          <ul>
            {operation.needs.map((need) => (
              <li key={need.key} className={need.done ? "text-pencil line-through" : ""}>
                {words.because(need.title, need.why)}
                {need.done && <span className="sr-only"> ({words.doneMark})</span>}
              </li>
            ))}
          </ul>
        </div>
      )}
      <div className="no-print flex flex-wrap items-center gap-x-4 gap-y-2">
        {!operation.begun_at && (
          <form
            className="flex items-center gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (minutes === null || !isNumber) return;
              onSay({ minutes: taken });
            }}
          >
            <label htmlFor="minutes-taken">{words.spent}</label>
            <input
              id="minutes-taken"
              inputMode="decimal"
              value={minutes ?? (operation.spent ? String(Math.round(operation.spent)) : "")}
              onChange={(event) => setMinutes(event.target.value)}
              aria-invalid={isWrong ? true : undefined}
              aria-describedby={isWrong ? "minutes-problem" : undefined}
              onBlur={(event) => event.currentTarget.form?.requestSubmit()}
              className="w-16 rounded-sm border border-pencil bg-paper px-1.5 py-1"
            />
            {isWrong && (
              <span id="minutes-problem" role="alert" className="text-thread">
                {words.noMinutes}
              </span>
            )}
          </form>
        )}
        {!done && operation.may_wait_for.length > 0 && (
          <span className="flex items-center gap-2">
            <label htmlFor="waits-for">{words.waitFor}</label>
            <Choose
              id="waits-for"
              value={operation.waits_for ?? ""}
              choices={[["", words.nothing], ...operation.may_wait_for.map((what) => [what, what])]}
              onChoose={(what) => onSay({ waits_for: what as Operation["waits_for"] | "" })}
            />
            {operation.waits_for && (
              <label className="flex items-center gap-2">
                {words.expected}
                <input
                  type="date"
                  value={operation.waits_until ?? ""}
                  onChange={(event) => onSay({ waits_until: event.target.value || null })}
                  className="rounded-sm border border-pencil bg-paper px-1.5 py-1"
                />
              </label>
            )}
          </span>
        )}
      </div>
      <form
        className="no-print flex items-start gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (note !== null && note !== operation.note) onSay({ note });
        }}
      >
        <label htmlFor="operation-note" className="pt-1.5">
          {words.note}
        </label>
        <textarea
          id="operation-note"
          rows={2}
          maxLength={1000}
          value={note ?? operation.note}
          onChange={(event) => setNote(event.target.value)}
          onBlur={(event) => event.currentTarget.form?.requestSubmit()}
          className="min-w-0 flex-1 rounded-sm border border-pencil bg-paper px-2 py-1"
        />
        <Button type="submit" disabled={note === null || note === operation.note}>
          {words.keepNote}
        </Button>
      </form>
    </article>
  );
}
