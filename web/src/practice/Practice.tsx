import { useMutation, useQuery } from "@tanstack/react-query";
import { type FormEvent, useEffect, useRef, useState } from "react";
import { type Answered, answer, api } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { preferredUnit, readingOf } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";

const words = text.practice;
const KEPT = "hem.practice";
const MOST = 400;

/** What has been answered in this browser so far. */
function kept(): Answered[] {
  try {
    const read: unknown = JSON.parse(localStorage.getItem(KEPT) ?? "[]");
    return Array.isArray(read) ? read.filter((one) => one && one.kind in words.kinds) : [];
  } catch {
    return []; // somebody else's words under our name: they are written over
  }
}

const aNumber = () => crypto.getRandomValues(new Uint32Array(1))[0] as number;

/** The practice bench: a problem, an answer, its working, and the next one at the level the answers have led to. */
export function Practice() {
  const unit = preferredUnit.use();
  const [answers, setAnswers] = useState(kept);
  /** What the problem in hand was asked with. */
  const [asked, setAsked] = useState(() => ({ answers, number: aNumber() >>> 1 }));
  const problem = useQuery({
    queryKey: ["practice", asked, unit],
    queryFn: () =>
      answer(api.POST("/api/practice/next", { params: { query: readingOf(unit) }, body: asked })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const made = problem.data;
  const [typed, setTyped] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const onward = useRef<HTMLButtonElement>(null);
  const look = useMutation({
    mutationFn: (body: { kind: Answered["kind"]; level: number; number: number; typed: string }) =>
      answer(api.POST("/api/practice/answer", { params: { query: readingOf(unit) }, body })),
    onSuccess: ({ right }, { kind }) => {
      const now = [...answers, { kind, right }].slice(-MOST);
      setAnswers(now);
      localStorage.setItem(KEPT, JSON.stringify(now));
    },
  });
  const judged = look.data;
  useEffect(() => {
    document.title = `${words.title} · ${text.title}`;
  }, []);
  useEffect(() => {
    if (judged) onward.current?.focus();
    else if (made) field.current?.focus();
  }, [judged, made]);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (made && !judged) look.mutate({ kind: made.kind, level: made.level, number: made.number, typed });
  };
  const next = (from: Answered[]) => {
    setTyped("");
    look.reset();
    setAsked({ answers: from, number: aNumber() >>> 1 });
  };
  const right = answers.filter((one) => one.right).length;
  return (
    <main className="mx-auto w-full max-w-3xl flex-1 overflow-auto px-7 py-4">
      <h1 className="font-title text-3xl">{words.title}</h1>
      <p className="mb-5 text-pencil">{words.intro}</p>
      <Wrong error={problem.error} />
      {made && (
        <article aria-label={words.kinds[made.kind]} className="border-t border-chalk pt-3">
          <p className="flex justify-between gap-4 text-pencil">
            <span>{words.kinds[made.kind]}</span>
            <span>{words.level(made.level, made.levels)}</span>
          </p>
          <p className="mt-2 text-xl leading-relaxed">{made.says}</p>
          <p className="mt-2 mb-3 font-title text-2xl">{made.asks}</p>
          <form onSubmit={submit} className="flex flex-wrap items-end gap-3">
            <label>
              <span className="block text-pencil">{words.answer}</span>
              <input
                ref={field}
                value={typed}
                maxLength={60}
                autoComplete="off"
                readOnly={!!judged}
                onChange={(event) => setTyped(event.target.value)}
                className="w-48 rounded-sm border border-pencil bg-paper px-2 py-1 text-xl"
              />
            </label>
            {!made.counts && <span className="pb-2 text-pencil">{unit}</span>}
            {!judged && (
              <Button type="submit" disabled={!typed.trim() || look.isPending}>
                {words.look}
              </Button>
            )}
          </form>
          <Wrong error={look.error} />
          {judged && (
            <div role="status" className="mt-4">
              <p className={`text-xl font-semibold ${judged.right ? "" : "text-thread"}`}>
                {judged.right ? words.right(judged.answer) : words.wrong(judged.answer)}
              </p>
              {judged.slip && (
                <p className="mt-1">
                  <span className="text-pencil">{words.slip}</span> {judged.slip}
                </p>
              )}
              <h2 className="mt-3 font-title text-xl">{words.working}</h2>
              <ol>
                {judged.workings.map((line) => (
                  <li key={line} className="border-t border-chalk py-1">
                    {line}
                  </li>
                ))}
              </ol>
              <button
                ref={onward}
                type="button"
                onClick={() => next(answers)}
                className="mt-3 min-h-8 rounded-sm border border-pencil bg-paper px-2.5 py-1 font-semibold hover:bg-lining"
              >
                {words.next}
              </button>
            </div>
          )}
        </article>
      )}
      {answers.length > 0 && (
        <p className="mt-8 flex items-baseline gap-3 text-pencil">
          {words.score(right, answers.length)}
          <Button
            look="quiet"
            onClick={() => {
              localStorage.removeItem(KEPT);
              setAnswers([]);
              next([]);
            }}
          >
            {words.anew}
          </Button>
        </p>
      )}
    </main>
  );
}
