import { type ReactNode, useState } from "react";
import type { SentencePart } from "../api/client";
import { text } from "../text";
import { LiveWord } from "./LiveWord";
import type { Bench } from "./useRecipe";

/** What was typed at a word and cannot be read, as it was typed. */
function typedAt(bench: Bench, path: string): string | undefined {
  const word = bench.typed.find((one) => one.path === path);
  return word && (typeof word.value === "string" || typeof word.value === "number")
    ? String(word.value)
    : undefined;
}

/** One part of the recipe, said in sentences with live words. */
export function Sentences({
  part,
  bench,
  onLight,
  children,
}: {
  part: SentencePart;
  bench: Bench;
  /** Called with the edges the sentence is about while it is pointed at or worked on. */
  onLight: (edges: SentencePart["acts_on"]) => void;
  children?: ReactNode;
}) {
  const unit = bench.screen?.unit ?? "cm";
  const [more, setMore] = useState(false);
  const troubled = (line: (typeof part.lines)[number]) =>
    line.some(
      (token) => typeof token !== "string" && bench.problems.some(({ field }) => field === token.path),
    );
  const waits = (index: number) => !more && part.waits[index] === true && !troubled(part.lines[index] ?? []);
  const waiting = part.waits.filter(Boolean).length;
  const light = part.acts_on.length > 0 ? () => onLight(part.acts_on) : undefined;
  const dark = light && (() => onLight([]));
  return (
    <section
      id={`part-${part.where}`}
      aria-label={part.title}
      className="scroll-mt-2 px-6 py-2"
      onPointerEnter={light}
      onPointerLeave={dark}
      onFocus={light}
      onBlur={dark}
    >
      <h3 className="mb-1 font-title text-lg">{part.title}</h3>
      {part.lines.map((line, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a part's sentences keep their order
        <p key={index} hidden={waits(index)} className="mb-2 text-lg leading-relaxed">
          {line.map((token, place) =>
            typeof token === "string" ? (
              token
            ) : (
              <LiveWord
                // biome-ignore lint/suspicious/noArrayIndexKey: words keep their place in the sentence
                key={place}
                word={token}
                unit={unit}
                problem={bench.problems.find((problem) => problem.field === token.path)?.text}
                typed={
                  bench.problems.some((problem) => problem.field === token.path)
                    ? typedAt(bench, token.path)
                    : undefined
                }
                onChange={(value) => bench.change({ [token.path]: value })}
              />
            ),
          )}
        </p>
      ))}
      {waiting > 0 && (
        <button
          type="button"
          aria-expanded={more}
          data-more={part.where}
          onClick={() => setMore(!more)}
          className="no-print mb-2 block min-h-7 border-b border-basting font-semibold leading-tight"
        >
          {more ? text.lessToSay : text.moreToSay}
        </button>
      )}
      {children}
    </section>
  );
}

/** Problems that belong to no single word: to a pair of lengths, or to the whole recipe. */
export function LooseProblems({ bench }: { bench: Bench }) {
  const words = new Set(
    (bench.screen?.sentences ?? []).flatMap((part) =>
      part.lines.flat().flatMap((token) => (typeof token === "string" ? [] : [token.path])),
    ),
  );
  const loose = bench.problems.filter((problem) => !words.has(problem.field));
  if (!loose.length) return null;
  return (
    <div role="alert" className="border-b border-thread bg-mend px-5 py-2 text-thread">
      {loose.map((problem) => (
        <p key={problem.field}>
          {typedAt(bench, problem.field)} {problem.text}
        </p>
      ))}
    </div>
  );
}
