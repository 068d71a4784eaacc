import { useQuery } from "@tanstack/react-query";
import { MoreHorizontal, TriangleAlert } from "lucide-react";
import { lazy, Suspense, useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, api, type DeskRow } from "../api/client";
import { Drawing } from "../dress/Dress";
import { text } from "../text";
import { Button } from "../ui/Button";
import { day, dayAndMonth, daysUntil, inDays, weekday, yearOf } from "../ui/day";
import { deskOrder, useKeys } from "../ui/preferences";

const PAGE = 50;
/** More than this is not gone through by eye. */
const MOST = 200;

/** The desk: every dress by the day it is due, or as it was last worked on, with what is unresolved. */
export function Desk() {
  const [most, setMost] = useState(PAGE);
  const order = deskOrder.use();
  const [putAway, setPutAway] = useState(false);
  const desk = useQuery({
    queryKey: ["desk", most, order, putAway],
    queryFn: () =>
      answer(api.GET("/api/desk", { params: { query: { most, by: order, put_away: putAway } } })),
    placeholderData: (before) => before,
    refetchInterval: (query) =>
      query.state.data?.rows.some((row) => !row.looked_at) || query.state.status === "error" ? 1500 : false,
  });
  const [wanted, setWanted] = useState("");
  const rows = desk.data?.rows ?? [];
  const found = rows.filter((row) => isFound(row, wanted));
  const open = rows.filter((row) => row.stops + row.warnings > 0).length;
  useEffect(() => {
    document.title = text.title;
  }, []);
  const go = useNavigate();
  useKeys({ n: () => go("/new") });
  return (
    <main className="flex min-h-0 w-full flex-1 flex-col overflow-auto bg-linen">
      <h1 className="sr-only">{text.desk}</h1>
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2 border-b border-chalk bg-paper px-7 pt-1 pb-3">
        <label className="flex items-baseline gap-3">
          <span className="text-lg">{text.find}</span>
          <input
            type="search"
            value={wanted}
            placeholder={text.findHint}
            onChange={(event) => setWanted(event.target.value)}
            className="w-80 max-w-full border-b border-basting bg-paper px-1 py-1"
          />
        </label>
        <p className="text-lg text-pencil">
          {text.dresses(desk.data?.total ?? 0)} {putAway ? text.arePutAway : text.by}{" "}
          {!putAway && (
            <Word onClick={() => deskOrder.write(order === "due" ? "worked" : "due")}>
              {text.order[order]}
            </Word>
          )}
          {!putAway && open > 0 && (
            <>
              {", "}
              <Word isOn={wanted === OPEN} onClick={() => setWanted(wanted === OPEN ? "" : OPEN)}>
                {text.withOpen(open)}
              </Word>
            </>
          )}
          {putAway ? (
            <>
              {". "}
              <Word onClick={() => setPutAway(false)}>{text.backToDesk}</Word>
            </>
          ) : (
            (desk.data?.put_away ?? 0) > 0 && (
              <>
                {", "}
                <Word onClick={() => setPutAway(true)}>{text.countPutAway(desk.data?.put_away ?? 0)}</Word>
              </>
            )
          )}
        </p>
        <div className="ml-auto flex items-center gap-3">
          <Button onClick={() => go("/new")}>
            {text.newDress} <kbd className="ml-1 font-body text-sm text-pencil">n</kbd>
          </Button>
        </div>
      </div>
      {desk.isError && (
        <p role="alert" className="px-7 pt-2 text-thread">
          {text.lost}
        </p>
      )}
      {desk.data?.total === 0 && (
        <p className="px-7 py-10 text-xl">{putAway ? text.nonePutAway : text.deskEmpty}</p>
      )}
      {rows.length > 0 && found.length === 0 && <p className="px-7 py-6 text-xl">{text.noneFound}</p>}
      {order === "due" && !putAway ? (
        byDay(found).map(([due, together]) => (
          <section
            key={due}
            aria-labelledby={`due-${due}`}
            className="grid grid-cols-[10.5rem_minmax(0,1fr)] pr-5 pl-7 max-[700px]:block"
          >
            <DueDay due={due} rows={together} />
            <Slips rows={together} />
          </section>
        ))
      ) : (
        <div className="px-7 pt-3">
          <Slips rows={found} dated />
        </div>
      )}
      {desk.data && desk.data.rows.length < desk.data.total && most < MOST && (
        <Button className="mx-7 my-3 self-start" onClick={() => setMost(Math.min(most + PAGE, MOST))}>
          {text.moreDresses(desk.data.total - desk.data.rows.length)}
        </Button>
      )}
    </main>
  );
}

/** A word of the sentence over the desk that can be touched. */
function Word({
  isOn,
  onClick,
  children,
}: {
  isOn?: boolean;
  onClick: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      onClick={onClick}
      aria-pressed={isOn}
      className="min-h-7 border-b border-basting font-semibold text-ink hover:bg-lining"
    >
      {children}
    </button>
  );
}

/** What is looked for to see the dresses with something open. */
const OPEN = "open";

/** Whether a dress is one of those looked for: by its name, its person, its occasion, or as one with something open. */
function isFound(row: DeskRow, wanted: string): boolean {
  const words = wanted.toLowerCase().trim().split(/\s+/).filter(Boolean);
  const said = `${row.title} ${row.person.name} ${row.occasion} ${row.summary}`.toLowerCase();
  return words.every((word) => (word === OPEN ? row.stops + row.warnings > 0 : said.includes(word)));
}

/** Dresses by the day they are due, in the order they come; those without a day together. */
function byDay(rows: DeskRow[]): [string, DeskRow[]][] {
  const days = new Map<string, DeskRow[]>();
  for (const row of rows) {
    const due = row.due_on ?? "";
    days.set(due, [...(days.get(due) ?? []), row]);
  }
  return [...days];
}

function DueDay({ due, rows }: { due: string; rows: DeskRow[] }) {
  const occasions = [...new Set(rows.map((row) => row.occasion.split(",")[0] ?? "").filter(Boolean))];
  const left = due ? daysUntil(due) : null;
  return (
    <div className="pt-8 pr-3">
      <h2 id={`due-${due}`} className="font-title text-3xl leading-tight">
        {due ? dayAndMonth(due) : text.noDueDay}
      </h2>
      {due && (
        <p className={left !== null && left < 0 ? "font-semibold text-thread" : "text-pencil"}>
          {weekday(due)}, {inDays(left ?? 0)}
          {yearOf(due) !== new Date().getFullYear() && ` (${yearOf(due)})`}
        </p>
      )}
      {occasions.slice(0, 3).map((occasion) => (
        <p key={occasion} className="mt-1 leading-snug text-pencil">
          {occasion}
        </p>
      ))}
    </div>
  );
}

export function Slips({
  rows,
  dated = false,
  named = true,
}: {
  rows: DeskRow[];
  dated?: boolean;
  named?: boolean;
}) {
  return (
    <ul className="grid grid-cols-[repeat(auto-fill,minmax(9.4rem,1fr))] gap-y-3 pb-4">
      {rows.map((row) => (
        <li key={row.id} className="relative">
          <Slip row={row} dated={dated} named={named} />
          <AskWays row={row} />
        </li>
      ))}
    </ul>
  );
}

function Slip({ row, dated, named }: { row: DeskRow; dated: boolean; named: boolean }) {
  const open = row.stops + row.warnings;
  return (
    <Link
      to={`/commission/${row.id}`}
      className="flex h-full flex-col rounded-sm outline-offset-[-2px] hover:bg-lining"
    >
      <div className="h-40 border-b border-basting px-2 pt-2">
        {row.hung ? (
          <img
            src={`/api/commissions/${row.id}/versions/${row.version}/hung/front`}
            alt={text.hang.asItHangs}
            loading="lazy"
            className="h-full w-full object-contain"
          />
        ) : (
          row.drawing && <Drawing view={row.drawing} />
        )}
      </div>
      <div className="px-2 pb-1">
        <h3 className="mt-1 font-title text-xl leading-tight">{row.title}</h3>
        {named && <p className="leading-snug text-pencil">{row.person.name}</p>}
        {dated && (
          <p className="text-[15.5px] leading-snug text-pencil">
            {row.occasion}
            {row.due_on && `, ${text.due} ${day(row.due_on)}`}
          </p>
        )}
        {row.unreadable ? (
          <p className="text-[15.5px] leading-snug text-thread">
            <TriangleAlert aria-hidden size={15} className="mr-1 inline" />
            <span className="font-semibold">{text.unreadable}</span> {row.unreadable}
          </p>
        ) : !row.looked_at ? (
          <p className="text-[15.5px] text-pencil">{text.lookingAgain}</p>
        ) : open ? (
          <p className="text-[15.5px] leading-snug text-thread">
            <TriangleAlert aria-hidden size={15} className="mr-1 inline" />
            <span className="font-semibold">{text.open(open)}.</span>{" "}
            <span className="line-clamp-2">{row.first_trouble}</span>
          </p>
        ) : (
          <p className="text-[15.5px] text-pencil">{text.nothingOpen}</p>
        )}
      </div>
    </Link>
  );
}

/** What can be done with a dress on the desk: its menu is fetched when it is asked for. */
const Ways = lazy(() => import("./Ways").then((menu) => ({ default: menu.Ways })));

function AskWays({ row }: { row: DeskRow }) {
  const [isAsked, setAsked] = useState(false);
  const dots = (
    <button
      type="button"
      aria-label={text.ways.of(row.title)}
      onClick={() => setAsked(true)}
      className={DOTS}
    >
      <MoreHorizontal size={18} aria-hidden />
    </button>
  );
  return isAsked ? (
    <Suspense fallback={dots}>
      <Ways row={row} />
    </Suspense>
  ) : (
    dots
  );
}

export const DOTS =
  "absolute top-1 right-1 flex size-7 items-center justify-center rounded-sm text-pencil hover:bg-lining";
