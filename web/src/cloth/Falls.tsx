import { useQuery } from "@tanstack/react-query";
import { answer, api, type Unit } from "../api/client";
import { tint } from "../dress/Dress";
import { text } from "../text";
import { Folded } from "../ui/Folded";
import { readingOf } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";

/** What a cloth falls by: its classes, and how far it stretches. */
export interface FallsBy {
  weight: string;
  drape: string;
  across: string;
  along: string;
}

type Line = number[][];

const joined = (line: Line) => `M${line.map((place) => place.join(" ")).join("L")}`;

/** How a cloth falls over a round support, let fall in the computer; from above and from the side. */
export function Falls({ by, colour, unit }: { by: FallsBy; colour: string | null; unit: Unit }) {
  return (
    <Folded title={text.falls.title} className="mt-5 border-t border-chalk pt-3">
      {() => <Fallen by={by} colour={colour} unit={unit} />}
    </Folded>
  );
}

function Fallen({ by, colour, unit }: { by: FallsBy; colour: string | null; unit: Unit }) {
  const fall = useQuery({
    queryKey: ["falls", by, unit],
    queryFn: () =>
      answer(api.POST("/api/cloths/falls", { params: { query: readingOf(unit) }, body: numbersOf(by) })),
    staleTime: Infinity,
    retry: false,
  });
  if (fall.isPending) return <p aria-live="polite">{text.falls.falling}</p>;
  if (!fall.data) return <Wrong error={fall.error} />;
  const { said, support, hangs, above, near, far } = fall.data;
  const fill = colour ? tint(colour) : "var(--color-card)";
  const over = (line: Line) => `${joined([[-support, 0], ...line, [support, 0]])}Z`;
  return (
    <div data-testid="falls" className="py-2">
      <p>{said}</p>
      <div className="mt-2 flex flex-wrap items-end gap-6">
        <Seen label={text.falls.above} box={`-165 -165 330 330`}>
          <path d={`${joined(above)}Z`} fill={fill} stroke="var(--color-ink)" strokeWidth={2} />
          <circle
            r={support}
            fill="none"
            stroke="var(--color-pencil)"
            strokeWidth={1.2}
            strokeDasharray="6 5"
          />
        </Seen>
        <Seen label={text.falls.side} box={`-165 -20 330 ${hangs + 40}`}>
          <path d={over(far)} fill="var(--color-form)" stroke="var(--color-ink)" strokeWidth={1.2} />
          <path d={over(near)} fill={fill} stroke="var(--color-ink)" strokeWidth={2} strokeLinejoin="round" />
        </Seen>
      </div>
      <p className="mt-1 text-sm text-pencil">{text.falls.how}</p>
    </div>
  );
}

/** What is said of its stretch, as numbers; nothing where nothing is. */
const numbersOf = ({ weight, drape, across, along }: FallsBy) => ({
  weight,
  drape,
  ...Object.fromEntries(
    Object.entries({ across, along })
      .filter(([, value]) => value.trim() !== "")
      .map(([name, value]) => [name, value.trim().replace(",", ".")]),
  ),
});

function Seen({ label, box, children }: { label: string; box: string; children: React.ReactNode }) {
  return (
    <figure>
      <svg role="img" aria-label={label} viewBox={box} className="w-60">
        {children}
      </svg>
      <figcaption className="text-center text-sm text-pencil">{label}</figcaption>
    </figure>
  );
}
