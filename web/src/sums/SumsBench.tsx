import { useQuery } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { answer, api, Refused, type SumDescription, type SumInput, type Unit } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { useSettledUnits } from "../ui/bare";
import { ChoiceList, UnitSwitch } from "../ui/Choice";
import { preferredUnit, readingOf } from "../ui/preferences";
import { OverSheet } from "../ui/Sheet";

interface SumAnswer {
  values: Record<string, { text: string; exact?: string } | { text: string; exact?: string }[]>;
  workings: { label: string; formula: string; line: string; rule: string }[];
  findings: { code: string; severity: string; text: string }[];
  sketch: { box: [number, number, number, number]; paths: string[] };
}

/** One calculation, no commission needed: what is asked on the left, the answer and its workings beside it. */
export function SumsBench({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const unit = preferredUnit.use();
  const sums = useQuery({
    queryKey: ["sums", unit],
    placeholderData: (before: SumDescription[] | undefined) => before,
    queryFn: () => answer(api.GET("/api/sums", { params: { query: readingOf(unit) } })),
    enabled: open,
  });
  const [chosen, setChosen] = useState("circle");
  const [typed, setTyped] = useState<Record<string, Record<string, string>>>({});
  const settle = useCallback(
    (settled: (typed: Record<string, string>, lengths: string[]) => Record<string, string>) =>
      setTyped((all) =>
        Object.fromEntries(
          Object.entries(all).map(([name, fields]) => {
            const inputs = sums.data?.find((one) => one.name === name)?.inputs ?? [];
            return [
              name,
              settled(
                fields,
                inputs.filter((input) => input.sort === "length").map((input) => input.name),
              ),
            ];
          }),
        ),
      ),
    [sums.data],
  );
  useSettledUnits(unit, settle);
  const sum = sums.data?.find((one) => one.name === chosen);
  return (
    <OverSheet
      title={text.sumsTitle}
      intro={text.sumsIntro}
      open={open}
      onOpenChange={onOpenChange}
      wide="max-w-5xl"
    >
      <div className="grid gap-6 md:grid-cols-[12rem_1fr]">
        <div className="no-print">
          {sums.data && (
            <ChoiceList
              label={text.sums}
              value={chosen}
              choices={sums.data.map((one) => ({ value: one.name, text: one.title }))}
              onChoose={(name) => setChosen(String(name))}
            />
          )}
          <Button className="mt-4 w-full" onClick={() => window.print()}>
            {text.printSum}
          </Button>
          <div className="mt-4">
            <UnitSwitch value={unit} onChoose={preferredUnit.write} />
          </div>
        </div>
        {sum && (
          <OneSum
            key={sum.name}
            sum={sum}
            unit={unit}
            typed={typed[sum.name] ?? {}}
            onType={(name, value) =>
              setTyped((all) => ({ ...all, [sum.name]: { ...all[sum.name], [name]: value } }))
            }
          />
        )}
      </div>
    </OverSheet>
  );
}

function OneSum({
  sum,
  unit,
  typed,
  onType,
}: {
  sum: SumDescription;
  unit: Unit;
  typed: Record<string, string>;
  onType: (name: string, value: string) => void;
}) {
  const given = Object.fromEntries(Object.entries(typed).filter(([, value]) => value.trim() !== ""));
  const complete = sum.inputs.every((input) => !input.required || given[input.name]);
  const result = useQuery({
    queryKey: ["sum", sum.name, unit, given],
    enabled: complete,
    retry: false,
    placeholderData: (before) => before,
    queryFn: () =>
      answer(
        api.POST("/api/sums/{name}", {
          params: { path: { name: sum.name }, query: readingOf(unit) },
          body: given,
        }),
      ) as unknown as Promise<SumAnswer>,
  });
  const problems = result.error instanceof Refused ? result.error.problem.errors : [];
  return (
    <div className="grid gap-6 md:grid-cols-2">
      <div>
        <p className="mb-2">{sum.purpose}</p>
        {sum.inputs.map((input) => (
          <SumField
            key={input.name}
            input={input}
            value={typed[input.name] ?? ""}
            problem={problems.find((problem) => problem.field === input.name)?.text}
            onType={(value) => onType(input.name, value)}
          />
        ))}
      </div>
      <div aria-live="polite" data-testid="sum-answer">
        <h3 className="font-title text-xl">{text.answer}</h3>
        {!complete && <p className="text-pencil">{text.sumWaiting}</p>}
        {problems
          .filter((problem) => !sum.inputs.some((input) => input.name === problem.field))
          .map((problem) => (
            <p key={problem.text} role="alert" className="text-thread">
              {problem.text}
            </p>
          ))}
        {complete && !result.error && result.data && <SumWorked answer={result.data} />}
      </div>
    </div>
  );
}

function SumWorked({ answer: worked }: { answer: SumAnswer }) {
  return (
    <>
      <dl className="grid grid-cols-[auto_auto_auto] items-baseline justify-start gap-x-4">
        {Object.entries(worked.values).map(([name, value]) => {
          const parts = Array.isArray(value) ? value : [value];
          return (
            <div key={name} className="col-span-3 grid grid-cols-subgrid items-baseline">
              <dt>{text.sumLabels[name] ?? name}</dt>
              <dd className="text-xl font-semibold">{parts.map((part) => part.text).join(", ")}</dd>
              <dd className="text-sm text-pencil">{parts.map((part) => part.exact ?? "").join(", ")}</dd>
            </div>
          );
        })}
      </dl>
      {worked.findings.map((finding) => (
        <p key={finding.code} className={finding.severity === "note" ? "mt-2" : "mt-2 text-thread"}>
          {finding.text}
        </p>
      ))}
      <Sketch sketch={worked.sketch} />
      <h3 className="mt-4 font-title text-xl">{text.workings}</h3>
      <ol>
        {worked.workings.map((working) => (
          <li key={working.label} className="mb-1.5">
            <span className="text-pencil">
              {working.label}: {working.formula}
            </span>
            <br />
            {working.line}
            {working.rule && <span className="block text-sm text-pencil">{working.rule}</span>}
          </li>
        ))}
      </ol>
    </>
  );
}

/** What is asked, drawn small and to one scale. */
function Sketch({ sketch }: { sketch: SumAnswer["sketch"] }) {
  if (!sketch?.paths.length) return null;
  const [left, top, width, height] = sketch.box;
  const room = Math.max(width, height) * 0.04;
  return (
    <svg
      viewBox={`${left - room} ${top - room} ${width + 2 * room} ${height + 2 * room}`}
      className="mt-3 max-h-44 w-full"
      data-testid="sum-sketch"
      aria-hidden
      fill="none"
      stroke="var(--color-ink)"
      strokeWidth={room / 5}
    >
      {sketch.paths.map((d) => (
        <path key={d} d={d} />
      ))}
    </svg>
  );
}

function SumField({
  input,
  value,
  problem,
  onType,
}: {
  input: SumInput;
  value: string;
  problem?: string;
  onType: (value: string) => void;
}) {
  const look =
    "w-36 rounded-sm border border-pencil bg-paper px-2 py-1 aria-invalid:border-2 aria-invalid:border-thread";
  const id = `sum-${input.name}`;
  return (
    <div className="mb-1.5">
      <div className="flex items-center justify-between gap-3">
        <label htmlFor={id}>{input.label}</label>
        {input.sort === "choice" ? (
          <select
            id={id}
            value={value || String(input.default)}
            onChange={(event) => onType(event.target.value)}
            className={look}
          >
            {Object.entries(input.choices).map(([choice, spoken]) => (
              <option key={choice} value={choice}>
                {spoken}
              </option>
            ))}
          </select>
        ) : (
          <input
            id={id}
            type="text"
            autoComplete="off"
            value={value}
            placeholder={input.required ? "" : input.default === null ? text.optional : String(input.default)}
            aria-invalid={problem ? true : undefined}
            aria-describedby={problem ? `${id}-problem` : undefined}
            onChange={(event) => onType(event.target.value)}
            className={look}
          />
        )}
      </div>
      {problem && (
        <p id={`${id}-problem`} role="alert" className="text-right text-sm text-thread">
          {problem}
        </p>
      )}
    </div>
  );
}
