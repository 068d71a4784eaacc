import { useMutation, useQuery } from "@tanstack/react-query";
import { TriangleAlert } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, api, type DeskRow, Refused } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { preferredUnit, useKeys } from "../ui/preferences";
import { OverSheet } from "../ui/Sheet";
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
  const [beginning, setBeginning] = useState(false);
  useKeys({ n: () => setBeginning(true) });
  return (
    <main className="mx-auto w-full max-w-5xl overflow-auto px-8 py-6">
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
          <Button onClick={() => setBeginning(true)}>{text.newDress}</Button>
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
      <ul>
        {desk.data?.rows.map((row) => (
          <li key={row.id} className="border-t border-chalk">
            <Slip row={row} />
          </li>
        ))}
      </ul>
      {desk.data && desk.data.rows.length < desk.data.total && most < MOST && (
        <Button className="my-3" onClick={() => setMost(Math.min(most + PAGE, MOST))}>
          {text.moreDresses(desk.data.total - desk.data.rows.length)}
        </Button>
      )}
      <NewDress open={beginning} onOpenChange={setBeginning} />
    </main>
  );
}

const PAGE = 50;
/** More than this is not gone through by eye. */
const MOST = 200;

/** A day, the same day everywhere. */
const day = (iso: string) =>
  new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeZone: "UTC" }).format(new Date(iso));

function Slip({ row }: { row: DeskRow }) {
  const open = row.stops + row.warnings;
  const due = row.due_on && day(row.due_on);
  return (
    <Link
      to={`/commission/${row.id}`}
      className="grid grid-cols-[minmax(0,5fr)_minmax(0,6fr)] gap-8 px-3 py-4 hover:bg-linen"
    >
      <div>
        <h2 className="font-title text-2xl leading-tight">{row.title}</h2>
        <p>{row.person.name}</p>
        <p className="text-pencil">
          {row.occasion}
          {due && `, ${text.due} ${due}`}
        </p>
      </div>
      <div>
        <p className="text-pencil">{row.summary}</p>
        {row.unreadable ? (
          <p className="text-thread">
            <TriangleAlert aria-hidden size={17} className="mr-1.5 inline" />
            <span className="font-semibold">{text.unreadable}</span> {row.unreadable}
          </p>
        ) : !row.looked_at ? (
          <p className="text-pencil">{text.lookingAgain}</p>
        ) : open ? (
          <p>
            <TriangleAlert aria-hidden size={17} className="mr-1.5 inline text-thread" />
            <span className="font-semibold text-thread">{text.open(open)}.</span> {row.first_trouble}
          </p>
        ) : (
          <p>{text.nothingOpen}</p>
        )}
      </div>
    </Link>
  );
}

function NewDress({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const [title, setTitle] = useState("");
  const [person, setPerson] = useState("");
  const go = useNavigate();
  /** Asked under one name, however often it is clicked or tried again. */
  const begunAs = useRef("");
  useEffect(() => {
    if (open) begunAs.current = crypto.randomUUID();
  }, [open]);
  const begin = useMutation({
    mutationFn: () =>
      answer(
        api.POST("/api/commissions", {
          body: { title, person, occasion: "", unit: preferredUnit.read(), begun_as: begunAs.current },
        }),
      ),
    onSuccess: (made) => go(`/commission/${made.id}`),
  });
  const look = "rounded-sm border border-pencil bg-paper px-2 py-1";
  return (
    <OverSheet title={text.newDress} open={open} onOpenChange={onOpenChange}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          begin.mutate();
        }}
      >
        <p className="text-xl leading-loose">
          {text.newDressSentence.before}{" "}
          <input
            aria-label={text.dressName}
            required
            maxLength={120}
            value={title}
            onChange={(event) => setTitle(event.target.value)}
            className={look}
          />{" "}
          {text.newDressSentence.middle}{" "}
          <input
            aria-label={text.personName}
            required
            maxLength={120}
            value={person}
            onChange={(event) => setPerson(event.target.value)}
            className={look}
          />
          {text.newDressSentence.after}
        </p>
        {begin.error && (
          <p role="alert" className="text-thread">
            {begin.error instanceof Refused ? begin.error.message : text.lost}
          </p>
        )}
        <Button type="submit" className="mt-4" disabled={!title.trim() || !person.trim() || begin.isPending}>
          {text.begin}
        </Button>
      </form>
    </OverSheet>
  );
}
