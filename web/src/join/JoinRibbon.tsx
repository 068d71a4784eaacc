import type { Join, Remedy } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";

const WIDTH = 660;
const PAD = 34;
const UPPER = 50;
const LOWER = 104;

/** The two edges of a join unrolled to one scale, tied by threads that slant where they do not meet. */
export function JoinRibbon({
  join,
  onTake,
  onWhy,
}: {
  join: Join;
  onTake: (remedy: Remedy) => void;
  onWhy: (label: string) => void;
}) {
  const longest = Math.max(join.upper.length, join.lower.length);
  const x = (at: number) => PAD + (at / longest) * (WIDTH - 2 * PAD);
  return (
    <section
      aria-label={text.ribbon}
      data-testid="ribbon"
      className="flex min-h-0 gap-4 border-t border-chalk bg-linen px-5 py-2"
    >
      <div className="w-60 shrink-0">
        <h2 className="font-title text-xl">{text.stages.join}</h2>
        <p
          role="status"
          className={join.meets ? "" : "font-semibold text-thread"}
          data-testid="join-sentence"
        >
          {join.sentence}
        </p>
        <dl className="mt-1 grid grid-cols-[auto_auto_auto] justify-start gap-x-3 text-lg">
          <dt className="text-base text-pencil">{text.bodiceEdge}</dt>
          <dd>{join.upper.whole}</dd>
          <dd>
            <WhyButton onClick={() => onWhy("bodice waist")} />
          </dd>
          <dt className="text-base text-pencil">{text.lowerEdge}</dt>
          <dd>{join.lower.whole}</dd>
          <dd>
            <WhyButton onClick={() => onWhy("stitched seam")} />
          </dd>
        </dl>
      </div>
      <svg
        viewBox={`0 0 ${WIDTH} 158`}
        className="max-h-48 min-w-0 flex-1"
        role="img"
        aria-label={described(join)}
      >
        <g fontSize={14} fill="var(--color-ink)">
          <text x={2} y={UPPER - 22} fontSize={13} fill="var(--color-pencil)">
            {text.bodiceEdge}, {text.half} {join.upper.text}
          </text>
          <text x={2} y={LOWER + 42} fontSize={13} fill="var(--color-pencil)">
            {text.lowerEdge}, {text.half} {join.lower.text}
          </text>
          {[
            { edge: join.upper, y: UPPER },
            { edge: join.lower, y: LOWER },
          ].map(({ edge, y }) => (
            <g key={y} stroke="var(--color-ink)">
              <line x1={x(0)} x2={x(edge.length)} y1={y} y2={y} strokeWidth={4} />
              {edge.landmarks.map((mark) => (
                <line key={mark.name} x1={x(mark.at)} x2={x(mark.at)} y1={y - 7} y2={y + 7} strokeWidth={2} />
              ))}
            </g>
          ))}
          {join.ties.map((tie) => {
            const off = tie.state === "off";
            const middle = (x(tie.upper) + x(tie.lower)) / 2;
            const anchor = middle > WIDTH - 90 ? "end" : middle < 60 ? "start" : "middle";
            return (
              <g key={tie.name} data-tie={tie.name} data-state={tie.state}>
                <line
                  className="thread-line"
                  x1={x(tie.upper)}
                  y1={UPPER + 7}
                  x2={x(tie.lower)}
                  y2={LOWER - 7}
                  stroke={off ? "var(--color-thread)" : "var(--color-pencil)"}
                  strokeWidth={off ? 2.5 : 1.2}
                  strokeDasharray={off ? "6 3" : undefined}
                />
                <text x={x(tie.upper)} y={UPPER - 11} textAnchor={anchor} fontSize={13}>
                  {tie.name}
                </text>
                {tie.state !== "meets" && (
                  <text
                    x={Math.min(x(tie.lower), WIDTH - 4)}
                    y={LOWER + 24}
                    textAnchor={anchor}
                    fontWeight={700}
                    fill={off ? "var(--color-thread)" : "var(--color-ink)"}
                  >
                    {tie.offset}
                  </text>
                )}
              </g>
            );
          })}
          {join.sections.map((section, index) => {
            const [from, to] = [join.ties[index], join.ties[index + 1]];
            if (!from || !to) return null;
            return (
              <g key={section.start} textAnchor="middle">
                <text x={x((from.upper + to.upper) / 2)} y={UPPER + 20}>
                  {section.upper}
                </text>
                <text x={x((from.lower + to.lower) / 2)} y={LOWER - 9}>
                  {section.lower}
                </text>
              </g>
            );
          })}
        </g>
      </svg>
      {!join.meets && (
        <div className="no-print w-80 shrink-0 overflow-auto">
          <h3 className="text-pencil">{text.waysOut}</h3>
          <ul className="flex flex-col gap-1.5">
            {join.remedies.map((remedy) => (
              <li key={remedy.code}>
                <Button className="w-full" onClick={() => onTake(remedy)} data-remedy={remedy.code}>
                  <span className="font-semibold">{remedy.text}</span>
                  {remedy.cost && <span className="block text-sm text-pencil">{remedy.cost}</span>}
                </Button>
              </li>
            ))}
          </ul>
          {join.remedies.length === 0 && <p>{text.noWay}</p>}
        </div>
      )}
    </section>
  );
}

function WhyButton({ onClick }: { onClick: () => void }) {
  return (
    <button type="button" className="no-print min-h-6 text-sm text-pencil underline" onClick={onClick}>
      {text.why}
    </button>
  );
}

/** The ribbon for those who do not see it. */
function described(join: Join): string {
  const ties = join.ties.map((tie) => `${tie.name} ${tie.offset}`).join(", ");
  return `${join.sentence} ${ties}`;
}
