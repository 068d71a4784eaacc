import { useQuery } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { answer, api, Refused } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { useSettledUnits } from "../ui/bare";
import { UnitSwitch } from "../ui/Choice";
import { preferredUnit, readingOf } from "../ui/preferences";
import { OverSheet } from "../ui/Sheet";

const FIELDS = [
  "seam",
  "cut_radius",
  "edge_now",
  "sweep",
  "length",
  "pieces",
  "waist_allowance",
  "side_allowance",
  "hem_allowance",
  "darts",
] as const;
type Field = (typeof FIELDS)[number];
const COUNTS: Field[] = ["sweep", "pieces", "darts"];

/** It is already cut: say what was cut and what it must meet, and get every way out with what each costs. */
export function RescueBench({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const unit = preferredUnit.use();
  const [typed, setTyped] = useState<Partial<Record<Field, string>>>({});
  const [chosen, setChosen] = useState("");
  const settle = useCallback(
    (settled: (typed: Record<string, string>, lengths: string[]) => Record<string, string>) =>
      setTyped((all) =>
        settled(
          all as Record<string, string>,
          FIELDS.filter((name) => !COUNTS.includes(name)),
        ),
      ),
    [],
  );
  useSettledUnits(unit, settle);
  const given = Object.fromEntries(
    Object.entries(typed)
      .filter(([, value]) => value.trim() !== "")
      .map(([name, value]) => [name, COUNTS.includes(name as Field) ? Number(value) : value]),
  );
  const complete = Boolean(given.seam && (given.cut_radius || given.edge_now));
  const result = useQuery({
    queryKey: ["rescue", unit, given],
    enabled: open && complete,
    retry: false,
    placeholderData: (before) => before,
    queryFn: () => answer(api.POST("/api/rescue", { body: given, params: { query: readingOf(unit) } })),
  });
  const problems = result.error instanceof Refused ? result.error.problem.errors : [];
  const ways = complete && !result.error ? (result.data?.ways ?? []) : [];
  const way = ways.find((one) => one.code === chosen) ?? ways[0];
  const [left = 0, top = 0, width = 1, height = 1] = way?.box ?? [];
  return (
    <OverSheet
      title={text.rescue.title}
      intro={text.rescue.intro}
      open={open}
      onOpenChange={onOpenChange}
      wide="max-w-5xl"
    >
      <div className="grid gap-6 md:grid-cols-[17rem_1fr]">
        <div>
          <div className="mb-3">
            <UnitSwitch value={unit} onChoose={preferredUnit.write} />
          </div>
          {FIELDS.map((name) => {
            const problem = problems.find((one) => one.field === name)?.text;
            return (
              <div key={name} className="mb-1.5">
                <label className="flex items-center justify-between gap-3">
                  {text.rescue.fields[name]}
                  <input
                    value={typed[name] ?? ""}
                    placeholder={text.rescue.usual[name] ?? ""}
                    autoComplete="off"
                    aria-invalid={problem ? true : undefined}
                    onChange={(event) => setTyped((all) => ({ ...all, [name]: event.target.value }))}
                    className="w-28 rounded-sm border border-pencil bg-paper px-2 py-1 aria-invalid:border-2 aria-invalid:border-thread"
                  />
                </label>
                {problem && (
                  <p role="alert" className="text-right text-sm text-thread">
                    {problem}
                  </p>
                )}
              </div>
            );
          })}
        </div>
        <div aria-live="polite" data-testid="rescue-answer">
          {!complete && <p className="text-pencil">{text.rescue.waiting}</p>}
          {result.error && problems.length === 0 && complete && (
            <p role="alert" className="text-thread">
              {result.error instanceof Refused ? result.error.message : text.lost}
            </p>
          )}
          {complete && !result.error && result.data && <p className="mb-2 text-lg">{result.data.sentence}</p>}
          <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_16rem]">
            <ul className="flex flex-col gap-1.5">
              {ways.map((one) => (
                <li key={one.code}>
                  <Button
                    className="w-full"
                    data-way={one.code}
                    aria-pressed={one.code === way?.code}
                    onClick={() => setChosen(one.code)}
                    onFocus={() => setChosen(one.code)}
                  >
                    <span className={one.code === way?.code ? "font-semibold underline" : "font-semibold"}>
                      {one.text}
                    </span>
                    <span className="block text-sm text-pencil">
                      {one.cost}; {text.rescue.minutes(one.minutes)}
                    </span>
                  </Button>
                </li>
              ))}
            </ul>
            {way && (
              <figure>
                <svg
                  viewBox={`${left - 20} ${top - 20} ${width + 40} ${height + 40}`}
                  className="max-h-80 w-full"
                  role="img"
                  aria-label={text.rescue.piece(way.cut)}
                  fill="none"
                  stroke="var(--color-ink)"
                  data-testid="rescue-piece"
                >
                  {way.lines.map((d, index) => (
                    <path
                      key={d}
                      d={d}
                      strokeWidth={width / (index === 0 ? 140 : 220)}
                      strokeDasharray={index === 1 ? `${width / 60} ${width / 90}` : undefined}
                    />
                  ))}
                </svg>
                <figcaption className="text-sm text-pencil">
                  {text.rescue.piece(way.cut)}; {text.rescue.hem} {way.hem}
                </figcaption>
              </figure>
            )}
          </div>
        </div>
      </div>
    </OverSheet>
  );
}
