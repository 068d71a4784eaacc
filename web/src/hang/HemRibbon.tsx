import type { Hang } from "../api/client";
import { text } from "../text";
import { Table } from "../ui/Table";

type Hem = NonNullable<NonNullable<Hang["rest"]>["hem"]>;

const WIDE = 600;
const HIGH = 110;

const LINES = [
  ["asked", "var(--color-basting)", 1.5, "7 5"],
  ["now", "var(--color-pencil)", 1.5, undefined],
  ["later", "var(--color-ink)", 2.5, undefined],
] as const;

/** How high the hem hangs all round, as a curve and said at nine places, and how much to cut off or add there. */
export function HemRibbon({ hem, of }: { hem: Hem; of: keyof typeof text.hang.ribbons }) {
  const all = [...hem.asked, ...hem.now, ...hem.later];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const middle = (low + high) / 2;
  const span = Math.max(high - low, 20) * 1.1;
  const line = (values: number[]) =>
    `M${values.map((z, k) => `${(k / (values.length - 1)) * WIDE} ${HIGH / 2 - ((z - middle) / span) * HIGH}`).join("L")}`;
  return (
    <section aria-label={text.hang.ribbons[of]} data-testid="hem-ribbon">
      <h3 className="font-title text-xl">{text.hang.ribbons[of]}</h3>
      <p className="text-pencil">{text.hang.ribbonHow}</p>
      <svg
        role="img"
        aria-label={text.hang.ribbonHow}
        viewBox={`-4 -8 ${WIDE + 8} ${HIGH + 36}`}
        className="my-1 w-full max-w-3xl"
      >
        {[0, 0.5, 1].map((share, k) => (
          <g key={share}>
            <line
              x1={share * WIDE}
              x2={share * WIDE}
              y1={-4}
              y2={HIGH + 4}
              stroke="var(--color-chalk)"
              strokeWidth={1.5}
            />
            <text
              x={share * WIDE}
              y={HIGH + 22}
              fill="var(--color-pencil)"
              fontSize={15}
              textAnchor={(["start", "middle", "end"] as const)[k]}
            >
              {hem.places[share * (hem.places.length - 1)]?.place}
            </text>
          </g>
        ))}
        {LINES.map(([name, stroke, width, dashes]) => (
          <path
            key={name}
            d={line(hem[name])}
            fill="none"
            stroke={stroke}
            strokeWidth={width}
            strokeDasharray={dashes}
          />
        ))}
      </svg>
      <ul className="mb-2 flex flex-wrap gap-x-5 text-[15.5px]">
        {LINES.map(([name, stroke, width, dashes]) => (
          <li key={name} className="flex items-center gap-2">
            <svg aria-hidden width="30" height="6">
              <line y1={3} y2={3} x2={30} stroke={stroke} strokeWidth={width} strokeDasharray={dashes} />
            </svg>
            {text.hang.lines[name]}
          </li>
        ))}
      </ul>
      <Table heads={text.hang.heads}>
        {hem.places.map((place) => (
          <tr key={place.place} className="border-t border-chalk">
            <th scope="row" className="whitespace-nowrap pr-4 text-left font-normal">
              {place.place}
            </th>
            <td className="whitespace-nowrap pr-4">{place.asked}</td>
            <td className="whitespace-nowrap pr-4">{place.now}</td>
            <td className="whitespace-nowrap pr-4">{place.later}</td>
            <td className="whitespace-nowrap font-semibold">{place.cut}</td>
          </tr>
        ))}
      </Table>
    </section>
  );
}
