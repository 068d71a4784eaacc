import { useEffect, useRef } from "react";
import type { Screen, Working } from "../api/client";
import { DraftSteps } from "../sheet/DraftPaper";
import { text } from "../text";
import { Button } from "../ui/Button";

/** The workings as a page of arithmetic: every number with its sum, printed with the dress. */
export function Margin({
  screen,
  shown,
  asked,
  onAsk,
  onClose,
}: {
  screen: Screen;
  shown: boolean;
  asked: number | null;
  onAsk: (index: number | null) => void;
  onClose: () => void;
}) {
  return (
    <aside
      aria-label={text.workings}
      className={`print-flow min-h-0 flex-col overflow-auto bg-paper px-5 py-3 ${shown ? "flex" : "hidden"}`}
    >
      <div className="no-print mb-1 flex items-baseline justify-between gap-3">
        <h2 className="font-title text-2xl">{text.workings}</h2>
        <Button onClick={onClose}>{text.backToSheet}</Button>
      </div>
      <p className="no-print mb-1 text-sm text-pencil">{text.workingsHelp}</p>
      {shown && screen.draft && (
        <section aria-label={text.draft.title}>
          <h3 className="text-sm text-pencil">{text.draft.title}</h3>
          <DraftSteps draft={screen.draft} />
        </section>
      )}
      <ol>
        {screen.workings.map((working, index) => (
          <WorkingLine
            // biome-ignore lint/suspicious/noArrayIndexKey: workings are known by their place
            key={index}
            working={working}
            heading={working.topic !== screen.workings[index - 1]?.topic ? working.topic : ""}
            open={asked === index}
            onToggle={() => onAsk(asked === index ? null : index)}
            onAsk={onAsk}
          />
        ))}
      </ol>
    </aside>
  );
}

function WorkingLine({
  working,
  heading,
  open,
  onToggle,
  onAsk,
}: {
  working: Working;
  heading: string;
  open: boolean;
  onToggle: () => void;
  onAsk: (index: number) => void;
}) {
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (open) line.current?.scrollIntoView({ block: "nearest" });
  }, [open]);
  return (
    <li ref={line}>
      {heading && <h3 className="mt-2 text-sm text-pencil">{heading}</h3>}
      <button
        type="button"
        aria-expanded={open}
        onClick={onToggle}
        className="flex min-h-7 w-full items-baseline justify-between gap-3 rounded-sm px-1 text-left hover:bg-linen aria-expanded:bg-linen"
      >
        <span>{working.label}</span>
        <span className="whitespace-nowrap font-semibold">{working.text}</span>
      </button>
      {open && (
        <div data-testid="working" className="mb-2 border-l-2 border-chalk bg-linen px-3 py-2">
          <p className="text-pencil">{working.formula}</p>
          <p className="font-semibold">{working.line}</p>
          {working.exact !== working.text && (
            <p className="text-sm text-pencil">
              {text.exactly}: {working.exact}
            </p>
          )}
          {working.rule && (
            <p className="text-sm">
              {text.rule}: {working.rule}
            </p>
          )}
          {working.rounding && (
            <p className="text-sm">
              {text.rounding}: {working.rounding}
            </p>
          )}
          {working.instead.map((other) => (
            <p key={other.rule} className="text-sm">
              {text.other}, by the {other.rule}: {other.text}
            </p>
          ))}
          {working.inputs.length > 0 && (
            <p className="text-sm">
              {text.from}:{" "}
              {working.inputs.map((input, index) => (
                <span key={input.name}>
                  {index > 0 && ", "}
                  {input.working === null ? (
                    `${input.name} ${input.text}`
                  ) : (
                    <button
                      type="button"
                      className="min-h-6 underline"
                      onClick={() => input.working !== null && onAsk(input.working)}
                    >
                      {input.name} {input.text}
                    </button>
                  )}
                </span>
              ))}
            </p>
          )}
        </div>
      )}
    </li>
  );
}
