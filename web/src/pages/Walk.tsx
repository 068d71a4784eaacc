import { useEffect, useState } from "react";
import { text } from "../text";
import { Button } from "../ui/Button";
import { walk } from "../ui/preferences";

/** What each step of the walk is about, on the bench. */
const PLACES = [
  '[data-walk="way"]',
  "[data-word]",
  '[data-walk="dress"]',
  '[data-testid="sheet"]',
  '[data-testid="ribbon"]',
];

/** Round the bench in five steps, once: it can be left at any time and comes again only when it is asked for. */
export function Walk() {
  const state = walk.use();
  const [step, setStep] = useState(0);
  const going = state === "going";
  useEffect(() => {
    if (!going) return setStep(0);
    const seen = [...document.querySelectorAll<HTMLElement | SVGElement>(PLACES[step] ?? "")];
    const place = seen.find((one) => one.getClientRects().length > 0);
    place?.setAttribute("data-walked", "");
    return () => place?.removeAttribute("data-walked");
  }, [going, step]);
  if (!going) return null;
  const last = step === PLACES.length - 1;
  return (
    <section
      aria-label={text.walk.title}
      className="no-print flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-chalk bg-lining px-5 py-1.5"
    >
      <p aria-live="polite" className="min-w-0 flex-1 basis-72">
        <span className="mr-2 font-semibold">{text.walk.count(step + 1, PLACES.length)}</span>
        {text.walk.steps[step]}
      </p>
      <Button onClick={() => (last ? walk.write("done") : setStep(step + 1))}>
        {last ? text.walk.end : text.walk.next}
      </Button>
      {!last && (
        <Button look="quiet" onClick={() => walk.write("done")}>
          {text.walk.leave}
        </Button>
      )}
    </section>
  );
}
