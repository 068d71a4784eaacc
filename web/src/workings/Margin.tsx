import { TriangleAlert } from "lucide-react";
import { useEffect, useRef } from "react";
import type { Finding, Remedy, Screen, Working } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";

/** The margin: what needs attention, what is worth knowing, and the workings of every number. */
export function Margin({
  screen,
  asked,
  onAsk,
  onTake,
}: {
  screen: Screen;
  asked: number | null;
  onAsk: (index: number | null) => void;
  onTake: (remedy: Remedy) => void;
}) {
  const troubles = screen.findings.filter((finding) => finding.severity !== "note");
  const notes = screen.findings.filter((finding) => finding.severity === "note");
  return (
    <aside
      aria-label={text.workings}
      className="print-flow flex min-h-0 flex-col overflow-auto border-l border-chalk px-4 py-3"
    >
      {troubles.length > 0 && (
        <section aria-label={text.attention} className="mb-4">
          <h2 className="font-title text-xl">{text.attention}</h2>
          {troubles.map((finding) => (
            <FindingNote key={finding.code + finding.text} finding={finding} onTake={onTake} />
          ))}
        </section>
      )}
      <section aria-label={text.workings} className="mb-4">
        <h2 className="font-title text-xl">{text.workings}</h2>
        <p className="mb-1 text-sm text-pencil">{text.workingsHelp}</p>
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
      </section>
      {notes.length > 0 && (
        <section aria-label={text.findings}>
          <h2 className="font-title text-xl">{text.findings}</h2>
          {notes.map((finding) => (
            <FindingNote key={finding.code + finding.text} finding={finding} onTake={onTake} />
          ))}
        </section>
      )}
    </aside>
  );
}

function FindingNote({ finding, onTake }: { finding: Finding; onTake: (remedy: Remedy) => void }) {
  const grave = finding.severity !== "note";
  return (
    <div
      data-finding={finding.code}
      className={`mb-2 ${grave ? "border-l-4 border-thread bg-mend py-1 pl-3 pr-2" : ""}`}
    >
      <p>
        {grave && <TriangleAlert aria-hidden size={16} className="mr-1 inline text-thread" />}
        {finding.text}
      </p>
      {finding.code !== "waist-does-not-meet" &&
        finding.remedies.map((remedy) => (
          <Button key={remedy.text} className="no-print mr-1 mt-1" onClick={() => onTake(remedy)}>
            {remedy.text}
          </Button>
        ))}
    </div>
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
