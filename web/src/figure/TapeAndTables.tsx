import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Screen } from "../api/client";
import type { Bench } from "../recipe/useRecipe";
import { text } from "../text";
import { Button } from "../ui/Button";
import { useStudio } from "../ui/studio";
import { refusal } from "./FigureTable";
import { MEASURES } from "./measures";

const MANNERS = ["steady", "wrong_unit", "double", "dropout"] as const;

/** The digital tape's stand-in, tables in and out, and starting from a size. */
export function TapeAndTables({
  screen,
  bench,
  held,
  onTaken,
}: {
  screen: Screen;
  bench: Bench;
  held: string | null;
  onTaken: (key: string) => void;
}) {
  const [manner, setManner] = useState<(typeof MANNERS)[number]>("steady");
  const [heard, setHeard] = useState("");
  const [bust, setBust] = useState("");
  const unit = screen.unit;
  const devices = useStudio()?.devices ?? false;
  const [isPressed, setIsPressed] = useState(false);
  // what stands on the bench now; the screen's figure is that of the last answer
  const figure = bench.draft.figure as { measures?: Record<string, unknown>; simulated?: string[] };
  const books = useQueryClient();
  const names = useQuery(MEASURES);
  const label = (key: string) =>
    names.data?.flatMap((tab) => tab.measures).find((one) => one.key === key)?.label ?? key;

  const isOpen = (key: string) => figure.measures?.[key] === undefined;
  const press = async () => {
    setIsPressed(true);
    try {
      const order = (await books.ensureQueryData(MEASURES)).flatMap((tab) => tab.measures);
      const round = held && isOpen(held) ? held : order.find((one) => isOpen(one.key))?.key;
      if (!round) {
        setHeard(text.figure.allTaken);
        return;
      }
      const sent = await answer(
        api.POST("/api/devices/tape/press", { body: { held: round as "waist_girth", unit, manner } }),
      );
      const length = sent.lengths[0];
      if (length === undefined) {
        setHeard(text.figure.nothingCame);
        return;
      }
      const before = figure.simulated ?? [];
      bench.change({
        [`figure.measures.${round}`]: length,
        "figure.simulated": [...before.filter((key) => key !== round), round],
      });
      onTaken(round);
      const echo = sent.readings.length > sent.lengths.length ? ` ${text.figure.echo}` : "";
      setHeard(text.figure.heard(label(round), sent.texts[0] ?? "") + echo);
    } catch (error) {
      setHeard(refusal(error));
    } finally {
      setIsPressed(false);
    }
  };
  const take = (measures: Record<string, number>, said: string) => {
    bench.change(
      Object.fromEntries(Object.entries(measures).map(([key, mm]) => [`figure.measures.${key}`, mm])),
    );
    setHeard(said);
  };
  const fromSize = async () => {
    try {
      const body = { bust };
      take(
        await answer(api.POST("/api/figures/from-size", { body, params: { query: { unit } } })),
        text.figure.started,
      );
    } catch (error) {
      setHeard(refusal(error));
    }
  };
  const fromTable = async (file: File | undefined) => {
    if (!file) return;
    try {
      const body = { text: await file.text() };
      const found = await answer(api.POST("/api/figures/from-csv", { body, params: { query: { unit } } }));
      take(found, text.figure.tableRead(Object.keys(found).length));
    } catch (error) {
      setHeard(refusal(error));
    }
  };
  const asTable = async () => {
    const { data } = await api.POST("/api/figures/csv", {
      body: screen.recipe.figure as never,
      params: { query: { unit } },
      parseAs: "text",
    });
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([String(data)], { type: "text/csv" }));
    link.download = "measures.csv";
    link.click();
    URL.revokeObjectURL(link.href);
  };
  const look = "min-h-8 rounded-sm border border-pencil bg-paper px-1.5";
  return (
    <div className="mt-3 border-t border-chalk pt-2">
      <div className="flex flex-wrap items-center gap-2">
        {devices && (
          <Button disabled={isPressed} onClick={press}>
            {text.figure.press}
          </Button>
        )}
        <label className={devices ? "" : "hidden"}>
          <span className="sr-only">{text.figure.manner}</span>
          <select
            value={manner}
            onChange={(event) => setManner(event.target.value as typeof manner)}
            className={look}
          >
            {MANNERS.map((one) => (
              <option key={one} value={one}>
                {text.figure.manners[one]}
              </option>
            ))}
          </select>
        </label>
        <p role="status" data-testid="heard" className="text-sm text-pencil">
          {heard}
        </p>
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2">
          {text.figure.sizeOf}
          <input
            value={bust}
            onChange={(event) => setBust(event.target.value)}
            className={`w-24 ${look}`}
            placeholder={unit === "cm" ? "92" : "36"}
          />
        </label>
        <Button disabled={!bust.trim()} onClick={fromSize}>
          {text.figure.start}
        </Button>
        <Button onClick={asTable}>{text.figure.asTable}</Button>
        <label className="min-h-8 cursor-pointer rounded-sm border border-pencil px-2.5 py-1 leading-tight focus-within:outline-2 hover:bg-lining">
          {text.figure.fromTable}
          <input
            type="file"
            accept=".csv,text/csv"
            className="sr-only"
            onChange={(event) => fromTable(event.target.files?.[0])}
          />
        </label>
      </div>
    </div>
  );
}
