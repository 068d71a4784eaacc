import { useQuery } from "@tanstack/react-query";
import { answer, api, type Lay, type Recipe, Refused, type Unit } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { readingOf } from "../ui/preferences";

/** Every cloth of the dress laid, opened flat: how much of it to buy, what lies where, what does not go on it. */
export function Lays({ recipe, unit, onClose }: { recipe: Recipe; unit: Unit; onClose: () => void }) {
  const lays = useQuery({
    queryKey: ["lays", recipe, unit],
    queryFn: () =>
      answer(api.POST("/api/lays", { params: { query: readingOf(unit) }, body: recipe as never })),
    placeholderData: (before) => before,
    retry: false,
  });
  return (
    <section aria-label={text.lays.title} className="min-h-0 min-w-0 overflow-auto bg-paper px-5 py-3">
      <div className="mb-1 flex items-baseline justify-between gap-3">
        <h2 className="font-title text-2xl">{text.lays.title}</h2>
        <Button onClick={onClose}>{text.backToSheet}</Button>
      </div>
      <p className="mb-2 text-pencil" role="status">
        {lays.isFetching ? text.lays.laying : text.lays.how}
      </p>
      {lays.error && (
        <p role="alert" className="text-thread">
          {lays.error instanceof Refused ? lays.error.message : text.lost}
        </p>
      )}
      {lays.data?.length === 0 && <p>{text.lays.nothing}</p>}
      {lays.data?.map((lay) => (
        <Cloth key={lay.cloth} lay={lay} />
      ))}
    </section>
  );
}

function Cloth({ lay }: { lay: Lay }) {
  const size = lay.width / 28;
  return (
    <article className="mb-6">
      <h3 className="font-title text-xl">{lay.cloth}</h3>
      {lay.placed.length > 0 && (
        <p className="text-lg" data-testid="to-buy">
          <strong>{lay.buy}</strong> {text.lays.of(lay.width_text)}; {text.lays.use(lay.use)}
          {lay.too_wide.length > 0 && ` ${text.lays.without}`}
        </p>
      )}
      <p className="text-pencil">
        {!lay.said && text.lays.unsaid} {lay.one_way && text.lays.oneWay}
      </p>
      {lay.joined.map((one) => (
        <p key={one.name}>{text.lays.joined(one.name, one.across, one.widths)}</p>
      ))}
      {lay.too_wide.map((one) => (
        <p key={one.name} role="alert" className="text-thread">
          {text.lays.tooWide(one.name, one.across)}
        </p>
      ))}
      {lay.placed.length > 0 && (
        <>
          <svg
            role="img"
            aria-label={text.lays.picture(lay.cloth)}
            viewBox={`-4 -4 ${Math.max(lay.length, lay.width * 0.8) + 8} ${lay.width + 8}`}
            className="my-2 max-h-[26rem] w-full"
            preserveAspectRatio="xMinYMid meet"
          >
            <rect
              width={lay.length}
              height={lay.width}
              fill="var(--color-lining)"
              stroke="var(--color-basting)"
              strokeWidth={3}
            />
            {lay.placed.map((one) => (
              <g key={one.number} data-laid={one.name}>
                <path d={one.d} fill="var(--color-card)" stroke="var(--color-ink)" strokeWidth={4} />
                <text
                  x={one.along}
                  y={one.across}
                  fontSize={size}
                  fontWeight={700}
                  textAnchor="middle"
                  dominantBaseline="central"
                  fill="var(--color-ink)"
                >
                  {one.number}
                </text>
              </g>
            ))}
          </svg>
          <table className="text-[15.5px]">
            <thead className="text-left text-pencil">
              <tr>
                {text.lays.heads.map((head) => (
                  <th key={head} scope="col" className="pr-6 font-normal">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {lay.placed.map((one) => (
                <tr key={one.number} className="border-t border-chalk">
                  <td className="pr-6">{one.number}</td>
                  <th scope="row" className="pr-6 text-left font-semibold">
                    {one.name}
                  </th>
                  <td className="pr-6">{one.from_cut_end}</td>
                  <td className="pr-6">{one.from_selvedge}</td>
                  <td>{one.turned ? text.lays.turned : ""}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </article>
  );
}
