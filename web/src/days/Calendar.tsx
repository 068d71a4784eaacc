import { TriangleAlert } from "lucide-react";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { Day, Sitting, Trouble } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { dayAndMonth, today, weekday } from "../ui/day";
import { Folded } from "../ui/Folded";
import { Wrong } from "../ui/Wrong";
import { Fitting } from "./Fitting";
import { OpenHours } from "./OpenHours";
import { SHOWN, useDays } from "./useDays";

const words = text.days;
const NAMED = 3;

/** A day as it is written, so many days from another. */
const daysFrom = (day: string, by: number) => {
  const [year = 0, month = 1, of = 1] = day.split("-").map(Number);
  return new Date(Date.UTC(year, month - 1, of + by)).toISOString().slice(0, 10);
};

/** The calendar: every dress against its day, and what does not go. */
export function Calendar() {
  const [start, setStart] = useState(today);
  const { days, layOut, keepHours, again } = useDays(start);
  useEffect(() => {
    document.title = `${words.title} · ${text.title}`;
  }, []);
  // kept here, since a fitting that is being agreed may come to lie on another day meanwhile
  const [agreeing, setAgreeing] = useState<Record<string, string | null>>({});
  const made = days.data;
  const wrong = days.error ?? layOut.error ?? keepHours.error;
  const quiet = made && made.late.length + made.conflicts.length === 0;
  return (
    <main className="min-h-0 w-full flex-1 overflow-auto bg-linen">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2 border-b border-chalk bg-paper px-7 pt-1 pb-3">
        <h1 className="font-title text-3xl">{words.title}</h1>
        <p className="min-w-0 flex-1 basis-72 text-pencil">{words.intro}</p>
        <a
          href="/api/calendar/gentle-hem.ics"
          download
          className="underline underline-offset-4 hover:bg-lining"
        >
          {words.ics}
        </a>
      </div>
      <div className="grid grid-cols-[23rem_minmax(0,1fr)] gap-8 px-7 py-4 max-[1024px]:grid-cols-1">
        <div className="space-y-4">
          <Wrong error={wrong} />
          {made && (
            <>
              <div>
                <p role="status">{layOut.isPending ? words.laying : made.stale}</p>
                {!made.stale && made.worked_since && <p>{words.workedSince}</p>}
                {made.behind > 0 && <p>{words.behind(made.behind)}</p>}
                <Button
                  className="mt-1 font-semibold"
                  disabled={layOut.isPending}
                  onClick={() => layOut.mutate()}
                >
                  {words.layOut}
                </Button>
              </div>
              <Troubles title={words.late} of={made.late} warns />
              {made.more_late > 0 && <p className="text-thread">{words.moreLate(made.more_late)}</p>}
              <Troubles title={words.conflicts} of={made.conflicts} warns />
              {quiet && made.laid_at && <p className="text-pencil">{words.nothing}</p>}
              <Troubles title={words.today} of={made.today} />
              {made.fittings.length > 0 && (
                <section aria-label={words.agreedFittings}>
                  <h2 className="font-title text-xl">{words.agreedFittings}</h2>
                  <ul>
                    {made.fittings.map((one) => (
                      <li key={one.commission}>
                        {weekday(one.at.slice(0, 10))} {dayAndMonth(one.at.slice(0, 10))}, {clock(one.at)}:{" "}
                        <Link to={`/commission/${one.commission}`} className="hover:underline">
                          {one.title}
                        </Link>
                        , {one.person}
                      </li>
                    ))}
                  </ul>
                </section>
              )}
              <Folded title={words.hours}>
                {() => (
                  <OpenHours
                    key={JSON.stringify(made.hours)}
                    hours={made.hours}
                    onKeep={(hours) => keepHours.mutate(hours)}
                  />
                )}
              </Folded>
            </>
          )}
        </div>
        <div>
          <div className="no-print mb-2 flex gap-2">
            <Button onClick={() => setStart(daysFrom(start, -SHOWN))}>{words.earlier}</Button>
            <Button onClick={() => setStart(today())}>{words.now}</Button>
            <Button onClick={() => setStart(daysFrom(start, SHOWN))}>{words.later}</Button>
          </div>
          <ol aria-label={words.title} className="border-t border-chalk bg-paper">
            {made?.days.map((one) => (
              <OneDay
                key={one.day}
                day={one}
                isToday={one.day === today()}
                onKept={again}
                agreeing={agreeing}
                onAgree={(key, at) => setAgreeing((before) => ({ ...before, [key]: at }))}
              />
            ))}
          </ol>
        </div>
      </div>
    </main>
  );
}

function Troubles({ title, of, warns = false }: { title: string; of: Trouble[]; warns?: boolean }) {
  if (of.length === 0) return null;
  return (
    <section aria-label={title}>
      <h2 className="font-title text-xl">{title}</h2>
      <ul className="space-y-1">
        {of.map((one) => (
          <li key={one.text} className="flex gap-2">
            {warns && <TriangleAlert aria-hidden size={17} className="mt-1 shrink-0 text-thread" />}
            <Link
              to={`/commission/${one.commission}`}
              className={`hover:underline ${warns ? "text-thread" : ""}`}
            >
              {one.text}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Sittings of one dress that follow each other, as one stretch; a fitting stands by itself. */
function stretches(sittings: Sitting[]): Sitting[][] {
  const found: Sitting[][] = [];
  for (const one of sittings) {
    const last = found.at(-1)?.at(-1);
    const goesOn =
      last && last.commission === one.commission && last.end === one.start && !last.fitting && !one.fitting;
    if (goesOn) found.at(-1)?.push(one);
    else found.push([one]);
  }
  return found;
}

const clock = (moment: string | undefined) => (moment ?? "").slice(11, 16);

function OneDay({
  day,
  isToday,
  onKept,
  agreeing,
  onAgree,
}: {
  day: Day;
  isToday: boolean;
  onKept: () => void;
  /** The times being agreed for fittings, each by its own key. */
  agreeing: Record<string, string | null>;
  onAgree: (key: string, at: string | null) => void;
}) {
  const open = day.open_from !== null;
  return (
    <li
      className={`grid grid-cols-[11rem_minmax(0,1fr)] gap-x-4 border-b border-chalk px-3 py-1.5 max-[600px]:grid-cols-1 ${open ? "" : "text-pencil"}`}
    >
      <h2 className={isToday ? "border-l-[3px] border-ink pl-2 font-semibold" : "pl-[11px]"}>
        {weekday(day.day)} {dayAndMonth(day.day)}
      </h2>
      <div>
        {day.due.map((one) => (
          <p key={one.commission} className="font-semibold">
            <Link to={`/commission/${one.commission}`} className="border-b-2 border-ink hover:bg-lining">
              {words.due(one.title)}
            </Link>
          </p>
        ))}
        {day.sittings.length === 0 && <p className="text-pencil">{open ? words.free : words.closed}</p>}
        <ul>
          {stretches(day.sittings).map((stretch) => {
            const first = stretch[0] as Sitting;
            const fitting = `${first.commission} ${first.key}`;
            const work = [...new Set(stretch.map((one) => one.operation))];
            return (
              <li
                key={`${first.commission}-${first.start}`}
                className="grid grid-cols-[6.8rem_minmax(0,1fr)] gap-x-2"
              >
                <span className={`tabular-nums ${first.behind ? "text-thread" : "text-pencil"}`}>
                  {clock(first.start)}–{clock(stretch.at(-1)?.end)}
                </span>
                <span>
                  <Link to={`/commission/${first.commission}`} className="font-semibold hover:underline">
                    {first.title}
                  </Link>
                  {": "}
                  <span title={work.join(", ")}>
                    {work.slice(0, NAMED).join(", ")}
                    {work.length > NAMED && words.more(work.length - NAMED)}
                  </span>
                  {first.fitting && (
                    <Fitting
                      key={fitting}
                      sitting={first}
                      at={agreeing[fitting] ?? null}
                      onAt={(at) => onAgree(fitting, at)}
                      onKept={onKept}
                    />
                  )}
                </span>
              </li>
            );
          })}
        </ul>
      </div>
    </li>
  );
}
