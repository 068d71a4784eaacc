import { useMutation, useQuery } from "@tanstack/react-query";
import { TriangleAlert } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, api, type DeskRow, Refused } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { preferredUnit, useKeys } from "../ui/preferences";
import { OverSheet } from "../ui/Sheet";

/** The desk: every commission, the most recently worked on first, with what is unresolved. */
export function Desk() {
  const desk = useQuery({ queryKey: ["desk"], queryFn: () => answer(api.GET("/api/desk")) });
  const [beginning, setBeginning] = useState(false);
  useKeys({ n: () => setBeginning(true) });
  return (
    <main className="mx-auto w-full max-w-5xl overflow-auto px-8 py-6">
      <div className="mb-4 flex items-end justify-between">
        <div>
          <h1 className="font-title text-4xl">{text.desk}</h1>
          <p className="text-pencil">{text.deskIntro}</p>
        </div>
        <Button onClick={() => setBeginning(true)}>{text.newDress}</Button>
      </div>
      {desk.isError && (
        <p role="alert" className="text-thread">
          {text.lost}
        </p>
      )}
      {desk.data?.length === 0 && <p className="py-10 text-xl">{text.deskEmpty}</p>}
      <ul>
        {desk.data?.map((row) => (
          <li key={row.id} className="border-t border-chalk">
            <Slip row={row} />
          </li>
        ))}
      </ul>
      <NewDress open={beginning} onOpenChange={setBeginning} />
    </main>
  );
}

function Slip({ row }: { row: DeskRow }) {
  const open = row.stops + row.warnings;
  const due =
    row.due_on && new Intl.DateTimeFormat(undefined, { dateStyle: "medium" }).format(new Date(row.due_on));
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
        {open ? (
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
  const begin = useMutation({
    mutationFn: () =>
      answer(
        api.POST("/api/commissions", { body: { title, person, occasion: "", unit: preferredUnit.read() } }),
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
