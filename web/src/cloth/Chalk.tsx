import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type ChalkDrawing, type FoldedRing, type Recipe, type Unit } from "../api/client";
import { text } from "../text";
import { Folded } from "../ui/Folded";
import { readingOf } from "../ui/preferences";
import { Table } from "../ui/Table";

/** Pieces drawn straight on folded cloth, point by point, and rings on cloth folded in four or eight. */
export function Chalk(asking: { recipe: Recipe; unit: Unit }) {
  return (
    <Folded title={text.chalk.title} large className="border-t border-chalk pt-2">
      {() => <Drawings {...asking} />}
    </Folded>
  );
}

function Drawings({ recipe, unit }: { recipe: Recipe; unit: Unit }) {
  const [chosen, setChosen] = useState("");
  const all = useQuery({
    queryKey: ["chalk", recipe, unit],
    queryFn: () =>
      answer(api.POST("/api/chalk", { params: { query: readingOf(unit) }, body: recipe as never })),
    retry: false,
  });
  const drawings = all.data ? [...all.data.together, ...all.data.sheets] : [];
  const shown = drawings.find((one) => one.name === chosen) ?? drawings[0];
  return (
    <>
      <p className="text-pencil">{text.chalk.how}</p>
      {all.isError && <p role="alert">{text.lost}</p>}
      {all.isFetching && <p role="status">{text.lays.laying}</p>}
      {all.data?.rings.map((ring) => (
        <Ring key={`${ring.name} ${ring.wedge}`} ring={ring} />
      ))}
      {shown && (
        <>
          <label className="my-2 flex items-center gap-3">
            {text.chalk.piece}
            <select
              value={shown.name}
              onChange={(event) => setChosen(event.target.value)}
              className="min-h-8 rounded-sm border border-pencil bg-paper px-1"
            >
              {drawings.map((one) => (
                <option key={one.name}>{one.name}</option>
              ))}
            </select>
          </label>
          <Sheet drawing={shown} />
        </>
      )}
    </>
  );
}

function Sheet({ drawing }: { drawing: ChalkDrawing }) {
  const left = Math.min(0, ...drawing.points.map((point) => point.x));
  const size = Math.max(drawing.width, drawing.length) / 32;
  const outline = `M${drawing.points.map((point) => `${point.x} ${point.y}`).join("L")}Z`;
  return (
    <div className="grid grid-cols-[minmax(0,22rem)_minmax(0,1fr)] gap-6 max-[900px]:grid-cols-1">
      <svg
        role="img"
        aria-label={text.chalk.drawing(drawing.name)}
        viewBox={`${left - size * 2} ${-size * 2} ${drawing.width + size * 4} ${drawing.length + size * 4}`}
        className="max-h-[30rem] w-full"
      >
        <line
          x1={0}
          x2={0}
          y1={-size}
          y2={drawing.length + size}
          stroke="var(--color-ink)"
          strokeWidth={size / 4}
          strokeDasharray={`${size} ${size / 2}`}
        />
        <line
          x1={left - size}
          x2={drawing.width + size}
          y1={0}
          y2={0}
          stroke="var(--color-basting)"
          strokeWidth={size / 5}
        />
        <path d={outline} fill="var(--color-card)" stroke="var(--color-ink)" strokeWidth={size / 6} />
        {drawing.trims.map((trim) => (
          <path
            key={trim.said}
            d={`M${trim.points.map((point) => `${point.x} ${point.y}`).join("L")}`}
            fill="none"
            stroke="var(--color-thread)"
            strokeWidth={size / 5}
          />
        ))}
        {drawing.points.map((point) => (
          <g key={point.letter}>
            <circle
              cx={point.x}
              cy={point.y}
              r={point.curved ? size / 5 : size / 3}
              fill="var(--color-ink)"
            />
            {!point.curved && (
              <text
                x={point.x + (point.x > drawing.width / 2 ? size * 0.4 : -size * 0.4)}
                y={point.y - size * 0.3}
                fontSize={size * 1.3}
                fontWeight={700}
                textAnchor={point.x > drawing.width / 2 ? "start" : "end"}
                fill="var(--color-ink)"
              >
                {point.letter}
              </text>
            )}
          </g>
        ))}
      </svg>
      <div>
        {drawing.said.map((line) => (
          <p key={line}>{line}</p>
        ))}
        <Points points={drawing.points} />
        {drawing.trims.map((trim) => (
          <div key={trim.said}>
            <p className="mt-2 font-semibold">{trim.said}</p>
            <Points points={trim.points} />
          </div>
        ))}
      </div>
    </div>
  );
}

function Points({ points }: { points: ChalkDrawing["points"] }) {
  return (
    <Table heads={text.chalk.heads}>
      {points.map((point) => (
        <tr key={point.letter} className="border-t border-chalk">
          <th scope="row" className="pr-6 text-left font-semibold">
            {point.letter}
          </th>
          <td className="pr-6">{point.from_fold}</td>
          <td className="pr-6">{point.from_cut_end}</td>
          <td className="text-pencil">{point.curved ? text.chalk.curve : ""}</td>
        </tr>
      ))}
    </Table>
  );
}

/** A wedge of folded cloth with both its arcs, the tip on top. */
function Ring({ ring }: { ring: FoldedRing }) {
  const half = (ring.wedge / 2) * (Math.PI / 180);
  const at = (radius: number, turn: number) => `${radius * Math.sin(turn)} ${radius * Math.cos(turn)}`;
  const wide = 2 * ring.outer * Math.sin(half);
  return (
    <div className="my-3 flex items-center gap-6">
      <svg
        role="img"
        aria-label={text.chalk.wedge(ring.name)}
        viewBox={`${-wide / 2 - 20} -20 ${wide + 40} ${ring.outer + 40}`}
        className="h-44 w-40 shrink-0"
      >
        <path
          d={`M0 0L${at(ring.outer, -half)}A${ring.outer} ${ring.outer} 0 0 0 ${at(ring.outer, half)}Z`}
          fill="var(--color-lining)"
          stroke="var(--color-basting)"
          strokeWidth={ring.outer / 150}
          strokeDasharray={`${ring.outer / 40} ${ring.outer / 60}`}
        />
        <path
          d={`M${at(ring.inner, -half)}L${at(ring.outer, -half)}A${ring.outer} ${ring.outer} 0 0 0 ${at(ring.outer, half)}L${at(ring.inner, half)}A${ring.inner} ${ring.inner} 0 0 1 ${at(ring.inner, -half)}Z`}
          fill="var(--color-card)"
          stroke="var(--color-ink)"
          strokeWidth={ring.outer / 100}
        />
      </svg>
      <div>
        {ring.said.map((line) => (
          <p key={line}>{line}</p>
        ))}
      </div>
    </div>
  );
}
