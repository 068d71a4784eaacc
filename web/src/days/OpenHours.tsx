import { useState } from "react";
import type { Hours } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { day as said } from "../ui/day";
import { Tick } from "../ui/Tick";

const words = text.days;
const USUAL = { opens: "09:00", closes: "17:00" };

/** When the workroom is open, day by day, and when it is not. */
export function OpenHours({ hours, onKeep }: { hours: Hours; onKeep: (hours: Hours) => void }) {
  const [typed, setTyped] = useState(hours);
  const [closed, setClosed] = useState("");
  const put = (k: number, span: Hours["week"][number]) =>
    setTyped({ ...typed, week: typed.week.map((one, at) => (at === k ? span : one)) });
  return (
    <form
      className="mt-2 space-y-1"
      onSubmit={(event) => {
        event.preventDefault();
        onKeep(typed);
      }}
    >
      {typed.week.map((span, k) => (
        <div key={words.weekdays[k]} className="grid grid-cols-[8.5rem_1fr] items-center">
          <Tick on={span !== null} onTick={(on) => put(k, on ? USUAL : null)}>
            {words.weekdays[k]}
          </Tick>
          {span ? (
            <span className="flex items-center gap-1.5">
              {(["opens", "closes"] as const).map((end) => (
                <input
                  key={end}
                  type="time"
                  required
                  aria-label={`${words.weekdays[k]} ${words[end]}`}
                  value={span[end].slice(0, 5)}
                  onChange={(event) => put(k, { ...span, [end]: event.target.value })}
                  className="rounded-sm border border-pencil bg-paper px-1 py-0.5"
                />
              ))}
            </span>
          ) : (
            <span className="text-pencil">{words.closed}</span>
          )}
        </div>
      ))}
      <div className="flex flex-wrap items-center gap-2 pt-1">
        <label htmlFor="closed-on">{words.closedDays}</label>
        <input
          id="closed-on"
          type="date"
          value={closed}
          onChange={(event) => setClosed(event.target.value)}
          className="rounded-sm border border-pencil bg-paper px-1 py-0.5"
        />
        <Button
          disabled={!closed}
          onClick={() => {
            setTyped({ ...typed, closed: [...new Set([...typed.closed, closed])].sort() });
            setClosed("");
          }}
        >
          {words.addClosed}
        </Button>
      </div>
      {typed.closed.map((one) => (
        <Button
          key={one}
          look="quiet"
          onClick={() => setTyped({ ...typed, closed: typed.closed.filter((other) => other !== one) })}
        >
          {words.open(said(one))}
        </Button>
      ))}
      <p>
        <Button type="submit">{words.keepHours}</Button>
      </p>
    </form>
  );
}
