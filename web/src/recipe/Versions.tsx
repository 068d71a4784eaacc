import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Recipe, type Screen, type Version } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { moment } from "../ui/day";
import { readingOf } from "../ui/preferences";
import { OverSheet } from "../ui/Sheet";
import { LaidOver } from "./LaidOver";
import { Differences } from "./Notices";
import type { Bench } from "./useRecipe";

const PAGE = 40;

/** An earlier version laid on the table to be looked at. */
export interface Looked {
  version: number;
  recipe: Recipe;
  screen: Screen;
}

/** Every kept version, newest first: what each changed, to be looked at, compared with now, and brought back. */
export function Versions({
  open,
  onOpenChange,
  commission,
  bench,
  onLook,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  commission: number;
  bench: Bench;
  onLook: (looked: Looked) => void;
}) {
  const [most, setMost] = useState(PAGE);
  const [against, setAgainst] = useState<number | null>(null);
  const path = { commission_id: commission };
  const versions = useQuery({
    queryKey: ["versions", commission, bench.kept.version, most, bench.unit],
    enabled: open,
    placeholderData: (before) => before,
    queryFn: () =>
      answer(
        api.GET("/api/commissions/{commission_id}/versions", {
          params: { path, query: { ...readingOf(bench.unit), most } },
        }),
      ),
  });
  const state = (version: number) =>
    answer(
      api.GET("/api/commissions/{commission_id}/versions/{number}", {
        params: { path: { ...path, number: version } },
      }),
    ) as Promise<Recipe>;
  const compared = useQuery({
    queryKey: ["compared version", commission, against, bench.kept.recipe, bench.unit],
    enabled: open && against !== null,
    queryFn: async () => {
      const states = { before: await state(against ?? 0), after: JSON.parse(bench.kept.recipe) as Recipe };
      const differences = await answer(
        api.POST("/api/differences", { params: { query: readingOf(bench.unit) }, body: states }),
      );
      return { ...states, differences };
    },
  });
  const look = async (version: number) => {
    const recipe = await state(version);
    const made = await answer(
      api.POST("/api/bench", { params: { query: readingOf() }, body: { recipe, typed: [] } }),
    );
    onLook({ version, recipe, screen: made.screen as Screen });
    onOpenChange(false);
  };
  const bringBack = async (version: number) => {
    bench.replace(await state(version));
    onOpenChange(false);
  };
  return (
    <OverSheet
      title={text.versions.title}
      intro={text.versions.intro}
      open={open}
      onOpenChange={onOpenChange}
      wide="max-w-3xl"
    >
      <ol>
        {versions.data?.versions.map((version) => (
          <li key={version.version} data-version={version.version} className="border-t border-chalk py-2">
            <div className="flex flex-wrap items-center gap-2">
              <h3 className="font-title text-lg">{text.versions.number(version.version)}</h3>
              <p className="text-pencil">{moment(version.saved_at)}</p>
              {version.version === bench.kept.version ? (
                <p className="ml-auto text-pencil">{text.versions.newest}</p>
              ) : (
                <div className="ml-auto flex gap-2">
                  {!version.unreadable && (
                    <>
                      <Button onClick={() => look(version.version)}>{text.versions.look}</Button>
                      <Button
                        aria-expanded={against === version.version}
                        onClick={() => setAgainst(against === version.version ? null : version.version)}
                      >
                        {text.versions.compare}
                      </Button>
                      <Button onClick={() => bringBack(version.version)}>{text.versions.bringBack}</Button>
                    </>
                  )}
                </div>
              )}
            </div>
            <Changed version={version} />
            {against === version.version && compared.data && (
              <div className="mt-1 bg-linen p-2">
                <p className="text-sm text-pencil">{text.versions.sinceThen}</p>
                <Differences rows={compared.data.differences} />
                <LaidOver before={compared.data.before} after={compared.data.after} unit={bench.unit} />
              </div>
            )}
          </li>
        ))}
      </ol>
      {versions.data && versions.data.versions.length < versions.data.total && (
        <Button onClick={() => setMost(most + PAGE)}>{text.versions.more}</Button>
      )}
    </OverSheet>
  );
}

function Changed({ version }: { version: Version }) {
  if (version.unreadable) return <p className="text-thread">{version.unreadable}</p>;
  if (version.version === 1) return <p className="text-sm text-pencil">{text.versions.first}</p>;
  return <Differences rows={version.differences} />;
}
