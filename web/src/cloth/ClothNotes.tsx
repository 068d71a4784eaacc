import { useMutation, useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, done } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Choose } from "../ui/Choose";
import { day, today } from "../ui/day";
import { preferredUnit, readingOf } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";

const words = text.learnt;
type Kind = (typeof words.kinds)[number][0];
const MEASURED: readonly Kind[] = ["shrinkage", "growth on the bias"];

/** What was learnt of a cloth, and something new to be written down. */
export function ClothNotes({ cloth }: { cloth: number }) {
  const unit = preferredUnit.use();
  const call = { params: { path: { cloth_id: cloth }, query: readingOf(unit) } };
  const notes = useQuery({
    queryKey: ["cloth notes", cloth, unit],
    queryFn: () => answer(api.GET("/api/cloths/{cloth_id}/notes", call)),
  });
  const [kind, setKind] = useState<Kind>("shrinkage");
  const [said, setSaid] = useState({ before: "", after: "", text: "" });
  const learn = useMutation({
    mutationFn: () =>
      answer(
        api.POST("/api/cloths/{cloth_id}/notes", {
          ...call,
          body: {
            kind,
            on_day: today(),
            text: said.text,
            commission: null,
            before: MEASURED.includes(kind) ? said.before : "",
            after: MEASURED.includes(kind) ? said.after : "",
          },
        }),
      ),
    onSuccess: () => {
      setSaid({ before: "", after: "", text: "" });
      notes.refetch();
    },
  });
  const unlearn = useMutation({
    mutationFn: (id: number) =>
      done(api.DELETE("/api/cloth-notes/{note_id}", { params: { path: { note_id: id } } })),
    onSuccess: () => notes.refetch(),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    learn.mutate();
  };
  const field = (name: keyof typeof said, label: string, wide: string) => (
    <label>
      <span className="block text-pencil">{label}</span>
      <input
        value={said[name]}
        maxLength={name === "text" ? 1000 : 60}
        onChange={(event) => setSaid({ ...said, [name]: event.target.value })}
        className={`rounded-sm border border-pencil bg-paper px-2 py-1 ${wide}`}
      />
    </label>
  );
  return (
    <section aria-label={words.title} className="mt-5 border-t border-chalk pt-3">
      <h3 className="font-title text-xl">{words.title}</h3>
      {notes.data?.length === 0 && <p className="text-pencil">{words.none}</p>}
      <ul className="mb-2">
        {notes.data?.map((note) => (
          <li key={note.id} className="flex items-baseline gap-2">
            <span className="flex-1">
              <span className="font-semibold">{words.kinds.find(([one]) => one === note.kind)?.[1]}</span>:{" "}
              {note.said}{" "}
              <span className="text-pencil">
                ({day(note.on_day)}
                {note.title && `, ${note.title}`})
              </span>
            </span>
            <Button
              look="quiet"
              aria-label={words.unlearn(note.said)}
              onClick={() => unlearn.mutate(note.id)}
            >
              ×
            </Button>
          </li>
        ))}
      </ul>
      <form onSubmit={submit} className="flex flex-wrap items-end gap-3">
        <label htmlFor="learnt-kind" className="sr-only">
          {words.kind}
        </label>
        <Choose
          id="learnt-kind"
          value={kind}
          choices={words.kinds}
          onChoose={(next) => setKind(next as Kind)}
        />
        {MEASURED.includes(kind) && (
          <>
            {field("before", words.before, "w-24")}
            {field("after", words.after, "w-24")}
          </>
        )}
        {field("text", words.text, "w-56")}
        <Button type="submit">{words.keep}</Button>
      </form>
      <Wrong error={notes.error ?? learn.error ?? unlearn.error} />
    </section>
  );
}
