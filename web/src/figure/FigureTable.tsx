import { useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { Fragment, useRef, useState } from "react";
import { answer, api, type Commission, Refused, type Screen } from "../api/client";
import type { Bench } from "../recipe/useRecipe";
import { text } from "../text";
import { Button } from "../ui/Button";
import { readingOf } from "../ui/preferences";
import { Body } from "./Body";
import { MEASURES } from "./measures";
import { Sets } from "./Sets";
import { TapeAndTables } from "./TapeAndTables";

interface FigureDraft {
  name?: string;
  taken_on?: string;
  measures?: Record<string, unknown>;
  second?: Record<string, unknown>;
}

/** A tab by its title, without spaces: it becomes part of an id. */
const named = (tab: { title: string }) => tab.title.replace(/\s+/g, "-");

/** Measuring a person: the drawn body, every measure in the order of the tape, two readings each. */
export function FigureTable({
  screen,
  bench,
  commission,
  onClose,
}: {
  screen: Screen;
  bench: Bench;
  commission: Commission;
  onClose: () => void;
}) {
  const [held, setHeld] = useState<string | null>(null);
  const [tab, setTab] = useState("");
  const fields = useRef<Record<string, HTMLInputElement | null>>({});
  const tabs = useQuery(MEASURES);
  const figure = bench.draft.figure as FigureDraft;
  const kept = screen.recipe.figure as FigureDraft;
  const read = useQuery({
    queryKey: ["figure", kept, screen.unit],
    placeholderData: (before) => before,
    queryFn: () =>
      answer(
        api.POST("/api/figures/read", {
          params: { query: readingOf(screen.unit) },
          body: kept as Record<string, never>,
        }),
      ),
  });
  const open = tab || (tabs.data?.[0] ? named(tabs.data[0]) : "");
  const all = tabs.data?.flatMap((one) => one.measures) ?? [];
  const how = all.find((one) => one.key === held)?.how;
  const spoken = new Map(read.data?.measures.map((one) => [one.key, one]));
  const shown = (key: string, which: "measures" | "second") => {
    const typed = figure[which]?.[key];
    if (typeof typed === "string") return typed;
    if (typed === undefined) return "";
    const said = spoken.get(key);
    return (which === "measures" ? said?.first : said?.second) ?? "";
  };
  const problem = (key: string, which: "measures" | "second") =>
    bench.problems.find((one) => one.field === `figure.${which}.${key}`)?.text;
  const type = (key: string, which: "measures" | "second", typed: string) =>
    bench.change({ [`figure.${which}.${key}`]: typed.trim() === "" ? null : typed });

  /** Enter goes on to the next measure, on the next tab when this one is done. */
  const goOn = (key: string) => {
    const next = all[all.findIndex((one) => one.key === key) + 1];
    if (!next) return;
    const where = tabs.data?.find((one) => one.measures.some((measure) => measure.key === next.key));
    if (where) setTab(named(where));
    const field = fields.current[next.key];
    if (field) field.focus();
    else setTimeout(() => fields.current[next.key]?.focus(), 0); // on a tab that opens only now
  };
  const said = (key: string) =>
    screen.findings.filter(
      (finding) =>
        finding.code !== "measure-estimated" &&
        finding.at.some((place) => place.recipe === `figure.measures.${key}`),
    );

  return (
    <section aria-label={text.figure.title} className="flex min-h-0 min-w-0 flex-1 flex-col bg-paper">
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(11rem,15rem)_minmax(0,1fr)]">
        <div className="flex min-h-0 flex-col border-r border-chalk p-2">
          <Body held={held} />
          <p className="min-h-16 text-sm leading-snug" aria-live="polite" data-testid="how">
            {how ?? text.figure.help}
          </p>
          <p className="mt-auto text-sm text-pencil">
            {text.figure.taken(read.data?.taken ?? 0, all.length)}
          </p>
        </div>
        <div className="min-h-0 overflow-auto px-4 py-2">
          <div className="mb-1 flex flex-wrap items-center gap-3">
            <label className="flex items-center gap-2">
              <span className="text-pencil">{text.figure.takenOn}</span>
              <input
                type="date"
                value={figure.taken_on ?? ""}
                onChange={(event) => bench.change({ "figure.taken_on": event.target.value })}
                className="rounded-sm border border-pencil bg-paper px-2 py-0.5"
              />
            </label>
            <Button className="ml-auto" onClick={onClose}>
              {text.backToSheet}
            </Button>
          </div>
          <Tabs.Root value={open} onValueChange={setTab}>
            <Tabs.List
              aria-label={text.figure.title}
              className="mb-2 flex flex-wrap gap-1 border-b border-chalk"
            >
              {tabs.data?.map((one) => (
                <Tabs.Trigger
                  key={one.title}
                  value={named(one)}
                  className="min-h-8 rounded-t-sm px-2.5 hover:bg-lining data-[state=active]:bg-lining data-[state=active]:font-semibold"
                >
                  {one.title}
                </Tabs.Trigger>
              ))}
            </Tabs.List>
            {tabs.data?.map((one) => (
              <Tabs.Content key={one.title} value={named(one)} tabIndex={-1}>
                <table className="w-full">
                  <thead className="text-left text-sm text-pencil">
                    <tr>
                      <th scope="col">{text.figure.measure}</th>
                      <th scope="col">{text.figure.first}</th>
                      <th scope="col">{text.figure.second}</th>
                    </tr>
                  </thead>
                  <tbody>
                    {one.measures.map((measure) => (
                      <Fragment key={measure.key}>
                        <tr className="align-top">
                          <th scope="row" className="w-full py-0.5 pr-2 text-left font-normal">
                            {measure.label}
                          </th>
                          {(["measures", "second"] as const).map((which) => (
                            <td key={which} className="py-0.5 pr-2">
                              <MeasureField
                                refer={(field) => {
                                  if (which === "measures") fields.current[measure.key] = field;
                                }}
                                label={
                                  which === "measures"
                                    ? measure.label
                                    : `${measure.label}, ${text.figure.second}`
                                }
                                name={`${which}.${measure.key}`}
                                shown={shown(measure.key, which)}
                                isRefused={problem(measure.key, which) !== undefined}
                                onHold={() => setHeld(measure.key)}
                                onType={(typed) => type(measure.key, which, typed)}
                                onEnter={() => goOn(measure.key)}
                              />
                              {problem(measure.key, which) && (
                                <span
                                  role="alert"
                                  className="block max-w-40 text-sm leading-tight text-thread"
                                >
                                  {problem(measure.key, which)}
                                </span>
                              )}
                            </td>
                          ))}
                        </tr>
                        {said(measure.key).length > 0 && (
                          <tr>
                            <td colSpan={3} className="pb-1 text-sm leading-tight text-thread">
                              {said(measure.key).map((finding) => (
                                <p key={finding.code + finding.text}>{finding.text}</p>
                              ))}
                            </td>
                          </tr>
                        )}
                      </Fragment>
                    ))}
                  </tbody>
                </table>
              </Tabs.Content>
            ))}
          </Tabs.Root>
          <TapeAndTables
            screen={screen}
            bench={bench}
            held={held}
            onTaken={(key) => {
              setHeld(key);
              const where = tabs.data?.find((one) => one.measures.some((measure) => measure.key === key));
              if (where) setTab(named(where));
            }}
          />
          <Sets screen={screen} bench={bench} person={commission.person.id} />
        </div>
      </div>
    </section>
  );
}

/** One reading. What is typed stands as it was typed until the field is left, whatever is read meanwhile. */
function MeasureField({
  refer,
  label,
  name,
  shown,
  isRefused,
  onHold,
  onType,
  onEnter,
}: {
  refer: (field: HTMLInputElement | null) => void;
  label: string;
  name: string;
  shown: string;
  isRefused: boolean;
  onHold: () => void;
  onType: (typed: string) => void;
  onEnter: () => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <input
      ref={refer}
      aria-label={label}
      data-measure={name}
      value={typed ?? shown}
      aria-invalid={isRefused ? true : undefined}
      autoComplete="off"
      onFocus={(event) => {
        onHold();
        event.target.select();
      }}
      onChange={(event) => {
        setTyped(event.target.value);
        onType(event.target.value);
      }}
      onBlur={() => setTyped(null)}
      onKeyDown={(event) => event.key === "Enter" && onEnter()}
      className="w-28 rounded-sm border border-pencil bg-paper px-2 py-0.5 aria-invalid:border-2 aria-invalid:border-thread"
    />
  );
}

export function refusal(error: unknown): string {
  return error instanceof Refused ? error.message : text.lost;
}
