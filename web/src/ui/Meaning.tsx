import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Term } from "../api/client";
import { text } from "../text";

/** A word of the trade: its small drawing, its doubles, and two sentences. */
export function TermText({ term, named = false }: { term: Term; named?: boolean }) {
  const { width, height } = term;
  return (
    <div className="flex gap-3">
      {(term.solid || term.dashed) && (
        <svg
          aria-hidden
          viewBox={`-2 -2 ${width + 4} ${height + 4}`}
          className="h-12 w-18 shrink-0"
          fill="none"
          stroke="var(--color-ink)"
          strokeWidth={2.5}
          strokeLinejoin="round"
        >
          <path d={term.solid} />
          <path d={term.dashed} strokeDasharray="6 4" strokeWidth={2} />
        </svg>
      )}
      <div className="text-[15.5px] leading-snug">
        {named && <span className="font-semibold">{term.name}. </span>}
        {term.means}
        {term.also.length > 0 && (
          <span className="block text-pencil">
            {text.words.also} {term.also.join(", ")}
          </span>
        )}
      </div>
    </div>
  );
}

/** The word a label is about, where the trade has one. */
function useTerm(label: string): Term | undefined {
  const found = useQuery({
    queryKey: ["word", label],
    queryFn: () => answer(api.GET("/api/words/about", { params: { query: { label } } })),
    staleTime: Infinity,
  });
  return found.data?.[0];
}

/** What a label is about, where the trade has a word for it. */
export function Meaning({ label }: { label: string }) {
  const term = useTerm(label);
  return term ? <TermText term={term} named /> : null;
}

/** The same, asked for: a question beside what is chosen from a list, where there is an answer to it. */
export function WhatIs({ label }: { label: string }) {
  const [asked, setAsked] = useState(false);
  const term = useTerm(label);
  if (!term) return null;
  return (
    <div className="no-print">
      <button
        type="button"
        aria-expanded={asked}
        onClick={() => setAsked(!asked)}
        className="min-h-7 text-[15.5px] text-pencil underline underline-offset-2"
      >
        {text.words.whatIs(term.name)}
      </button>
      {asked && (
        <div className="border-l-2 border-chalk py-1 pl-3">
          <TermText term={term} />
        </div>
      )}
    </div>
  );
}
