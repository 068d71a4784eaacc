import { useQuery } from "@tanstack/react-query";
import { TriangleAlert } from "lucide-react";
import { useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, api, type DeskRow } from "../api/client";
import { Drawing } from "../dress/Dress";
import { text } from "../text";
import { Button } from "../ui/Button";
import { useKeys } from "../ui/preferences";
import { useStudio } from "../ui/studio";

/** The desk: every commission, the most recently worked on first, with what is unresolved. */
export function Desk() {
  const [most, setMost] = useState(PAGE);
  const desk = useQuery({
    queryKey: ["desk", most],
    queryFn: () => answer(api.GET("/api/desk", { params: { query: { most } } })),
    placeholderData: (before) => before,
    refetchInterval: (query) =>
      query.state.data?.rows.some((row) => !row.looked_at) || query.state.status === "error" ? 1500 : false,
  });
  const studio = useStudio();
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
    <main className="mx-auto w-full max-w-6xl overflow-auto px-8 py-5">
      <div className="mb-4 flex items-end justify-between">
        <div>
          <h1 className="font-title text-4xl">{text.desk}</h1>
          <p className="text-pencil">{text.deskIntro}</p>
        </div>
        <div className="flex items-center gap-3">
          <a
            href="/api/backup"
            download
            className="min-h-8 rounded-sm border border-pencil px-2.5 py-1 leading-tight hover:bg-lining"
          >
            {text.backup}
          </a>
          <Button onClick={() => go("/new")}>{text.newDress}</Button>
        </div>
      </div>
      {studio?.last_copy && (
        <p className="mb-3 text-sm text-pencil">{text.lastCopy(day(studio.last_copy))}</p>
      )}
      {desk.isError && (
        <p role="alert" className="text-thread">
          {text.lost}
        </p>
      )}
      {desk.data?.total === 0 && <p className="py-10 text-xl">{text.deskEmpty}</p>}
      {rows.length > 0 && (
        <div className="mb-2 flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-chalk pb-3">
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
            {text.dresses(desk.data?.total ?? 0)}
            {open > 0 && ", "}
            {open > 0 && (
              <button
                type="button"
                onClick={() => setWanted(wanted === OPEN ? "" : OPEN)}
                aria-pressed={wanted === OPEN}
                className="min-h-7 border-b border-basting font-semibold text-ink"
              >
                {text.withOpen(open)}
              </button>
            )}
          </p>
        </div>
      )}
      {rows.length > 0 && found.length === 0 && <p className="py-6 text-xl">{text.noneFound}</p>}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(10.5rem,1fr))] gap-x-2 gap-y-4">
        {found.map((row) => (
          <li key={row.id}>
            <Slip row={row} />
          </li>
        ))}
      </ul>
      {desk.data && desk.data.rows.length < desk.data.total && most < MOST && (
        <Button className="my-3" onClick={() => setMost(Math.min(most + PAGE, MOST))}>
          {text.moreDresses(desk.data.total - desk.data.rows.length)}
        </Button>
      )}
    </main>
  );
}

const PAGE = 50;
/** More than this is not gone through by eye. */
const MOST = 200;

/** A day, the same day everywhere. */
const day = (iso: string) =>
  new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeZone: "UTC" }).format(new Date(iso));

/** What is looked for to see the dresses with something open. */
const OPEN = "open";

/** Whether a dress is one of those looked for: by its name, its person, its occasion, or as one with something open. */
function isFound(row: DeskRow, wanted: string): boolean {
  const words = wanted.toLowerCase().trim().split(/\s+/).filter(Boolean);
  const said = `${row.title} ${row.person.name} ${row.occasion} ${row.summary}`.toLowerCase();
  return words.every((word) => (word === OPEN ? row.stops + row.warnings > 0 : said.includes(word)));
}

function Slip({ row }: { row: DeskRow }) {
  const open = row.stops + row.warnings;
  const due = row.due_on && day(row.due_on);
  return (
    <Link to={`/commission/${row.id}`} className="flex h-full flex-col rounded-sm p-2 hover:bg-linen">
      <div className="h-40">{row.drawing && <Drawing view={row.drawing} />}</div>
      <h2 className="mt-1 font-title text-xl leading-tight">{row.title}</h2>
      <p className="leading-snug">{row.person.name}</p>
      <p className="text-[15.5px] leading-snug text-pencil">
        {row.occasion}
        {due && `, ${text.due} ${due}`}
      </p>
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
          <span className="line-clamp-3">{row.first_trouble}</span>
        </p>
      ) : (
        <p className="text-[15.5px] text-pencil">{text.nothingOpen}</p>
      )}
    </Link>
  );
}
