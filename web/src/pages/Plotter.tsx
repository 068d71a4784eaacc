import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Plotting, Refused } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { OverSheet } from "../ui/Sheet";

const PENS: Record<string, { stroke: string; width: number }> = {
  "1": { stroke: "var(--color-ink)", width: 6 },
  "2": { stroke: "var(--color-pencil)", width: 3 },
  "3": { stroke: "var(--color-basting)", width: 3 },
};
const NEW_PAPER = 6000;
const CUT_AFTER = 40;

/** The simulated plotter: a dress sent to it, what it has drawn, new paper, a lost line, going on. */
export function Plotter({ commission, onClose }: { commission: number; onClose: () => void }) {
  const client = useQueryClient();
  const [trouble, setTrouble] = useState("");
  const [busy, setBusy] = useState(false);
  const stands = useQuery({
    queryKey: ["plotter"],
    queryFn: () => answer(api.GET("/api/devices/plotter")),
  });
  const send = async (call: () => Promise<Plotting>) => {
    setBusy(true);
    setTrouble("");
    try {
      client.setQueryData(["plotter"], await call());
    } catch (wrong) {
      setTrouble(wrong instanceof Refused ? wrong.message : text.lost);
    } finally {
      setBusy(false);
    }
  };
  const now = stands.data;
  const all = now ? now.drawn.length + now.waiting.length : 0;
  return (
    <OverSheet
      title={text.plotter.title}
      intro={text.plotter.intro}
      open
      onOpenChange={onClose}
      wide="max-w-4xl"
    >
      <div className="mb-3 flex flex-wrap gap-2">
        <Button
          disabled={busy}
          onClick={() =>
            send(() =>
              answer(
                api.POST("/api/devices/plotter/plots/{commission_id}", {
                  params: { path: { commission_id: commission } },
                }),
              ),
            )
          }
        >
          {text.plotter.send}
        </Button>
        <Button
          disabled={busy || !now?.waiting.length}
          onClick={() => send(() => answer(api.POST("/api/devices/plotter/go-on")))}
        >
          {text.plotter.goOn}
        </Button>
        <Button
          disabled={busy}
          onClick={() =>
            send(() => answer(api.POST("/api/devices/plotter/load", { body: { length: NEW_PAPER } })))
          }
        >
          {text.plotter.load}
        </Button>
        <Button
          look="quiet"
          disabled={busy}
          onClick={() =>
            send(() => answer(api.POST("/api/devices/plotter/manner", { body: { cut_after: CUT_AFTER } })))
          }
        >
          {text.plotter.cut}
        </Button>
      </div>
      {trouble && (
        <p role="alert" className="text-thread">
          {trouble}
        </p>
      )}
      {now && (
        <>
          <p role="status">
            {all === 0
              ? text.plotter.nothing
              : now.waiting.length === 0
                ? text.plotter.done(now.title)
                : text.plotter.drawn(now.drawn.length, all)}
          </p>
          {now.trouble && (
            <p role="alert" className="text-thread">
              {now.trouble}
            </p>
          )}
          {now.sheets.map((sheet, k) => (
            <figure
              // biome-ignore lint/suspicious/noArrayIndexKey: papers keep their order
              key={k}
              className="my-3"
            >
              <figcaption className="text-pencil">{text.plotter.sheet(k + 1)}</figcaption>
              <svg
                role="img"
                aria-label={text.plotter.sheet(k + 1)}
                viewBox={`0 0 ${sheet.length} ${now.width}`}
                className="max-h-64 w-full border border-chalk bg-card"
                preserveAspectRatio="xMinYMid meet"
              >
                {/* the roll runs to the right */}
                <g transform="matrix(0 1 1 0 0 0)">
                  {Object.entries(sheet.paths).map(([pen, d]) => (
                    <path
                      key={pen}
                      d={d}
                      fill="none"
                      stroke={PENS[pen]?.stroke ?? "var(--color-basting)"}
                      strokeWidth={PENS[pen]?.width ?? 3}
                    />
                  ))}
                </g>
              </svg>
            </figure>
          ))}
        </>
      )}
    </OverSheet>
  );
}
