import { ChevronLeft, ChevronRight } from "lucide-react";
import { useState } from "react";
import { text } from "../text";
import { Button } from "../ui/Button";
import { type Draft, DraftPaper } from "./DraftPaper";

/** The draft played line by line, as it is drawn on paper. */
export function DraftPlayer({ draft, onClose }: { draft: Draft; onClose: () => void }) {
  const [asked, setAsked] = useState(0);
  const last = draft.steps.length - 1;
  const now = Math.min(asked, last);
  const step = draft.steps[now];
  const go = (to: number) => setAsked(Math.min(Math.max(to, 0), last));
  if (!step) return null;
  return (
    <section
      aria-label={text.play}
      // biome-ignore lint/a11y/noAutofocus: opened by hand, and stepped through by the arrow keys
      autoFocus
      tabIndex={0}
      ref={(element) => {
        if (element && !element.contains(document.activeElement)) element.focus();
      }}
      className="flex min-h-0 min-w-0 flex-1 flex-col bg-paper focus:outline-none"
      onKeyDown={(event) => {
        const moves: Record<string, number> = { ArrowRight: now + 1, ArrowLeft: now - 1, Home: 0, End: last };
        const to = moves[event.key];
        if (event.key === "Escape") onClose();
        if (to === undefined) return;
        event.preventDefault();
        go(to);
      }}
    >
      <DraftPaper draft={draft} upTo={now} playing onStep={go} className="min-h-0 flex-1" />
      <div className="flex min-h-20 items-center gap-3 border-t border-chalk px-4 py-2">
        <div className="min-w-0 flex-1" aria-live="polite" data-testid="step">
          <p className="text-sm text-pencil">
            {text.stepOf(now + 1, last + 1)}, {text.halves[step.half]}
          </p>
          <p>{step.text}</p>
        </div>
        <Button aria-label={text.previousStep} disabled={now === 0} onClick={() => go(now - 1)}>
          <ChevronLeft size={18} />
        </Button>
        <Button aria-label={text.nextStep} disabled={now === last} onClick={() => go(now + 1)}>
          <ChevronRight size={18} />
        </Button>
        <Button onClick={() => go(last)}>{text.allSteps}</Button>
        <Button onClick={onClose}>{text.backToSheet}</Button>
      </div>
    </section>
  );
}
