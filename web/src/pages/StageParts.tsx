import { Fragment, useState } from "react";
import {
  answer,
  api,
  type Commission,
  Refused,
  type Screen,
  type SentencePart,
  type Stage,
} from "../api/client";
import { OwnBlock } from "../block/OwnBlock";
import { HerBlock } from "../recipe/HerBlock";
import { KeptSteps } from "../recipe/KeptSteps";
import { AddTo, AllowanceSet, KindOf, ListTools } from "../recipe/Kinds";
import { Sentences } from "../recipe/Sentences";
import type { Bench } from "../recipe/useRecipe";
import { stageOf } from "../recipe/Way";
import { text } from "../text";
import { Button } from "../ui/Button";
import { WhatIs } from "../ui/Meaning";
import { Files } from "./Files";

/** What lies on the wall beside the way. */
export type Table =
  | "sheet"
  | "draft"
  | "schools"
  | "figure"
  | "workings"
  | "lays"
  | "hang"
  | "making"
  | "fittings";

/** What is worked on at a stage. */
export function StageParts({
  stage,
  screen,
  bench,
  commission,
  onTable,
  onLight,
  onSeam,
}: {
  stage: Stage;
  screen: Screen;
  bench: Bench;
  commission: Commission;
  onTable: (table: Table) => void;
  onLight: (edges: SentencePart["acts_on"]) => void;
  onSeam: (name: string) => void;
}) {
  const parts = screen.sentences.filter((part) => stageOf(part.where) === stage);
  return (
    <>
      {(stage === "making" || stage === "fittings") && (
        <div className="px-6 pb-3">
          <p className="mb-2">{text[stage].folded}</p>
          <Button onClick={() => onTable(stage)}>{text[stage].open}</Button>
        </div>
      )}
      {stage === "pattern" && <Files screen={screen} commissionId={commission.id} bench={bench} />}
      {parts.flatMap((part, place) => {
        const sentences = (
          <Sentences key={part.where} part={part} bench={bench} onLight={onLight}>
            {part.where === "figure" && (
              <Button className="no-print" onClick={() => onTable("figure")}>
                {text.measure}
              </Button>
            )}
            {part.where === "lower" && !screen.is_cut && (
              <KindOf
                label={text.lowerBy}
                where="lower"
                choices={screen.lowers}
                screen={screen}
                bench={bench}
              />
            )}
            {part.where === "lower" && screen.is_cut !== null && <CutAlready screen={screen} bench={bench} />}
            {part.where === "band" && (
              <KindOf label={text.bandBy} where="band" choices={screen.bands} screen={screen} bench={bench} />
            )}
            {part.where === "cloths" && (
              <Button className="no-print" onClick={() => onTable("lays")}>
                {text.lays.ask}
              </Button>
            )}
            {part.where === "allowances" && <AllowanceSet screen={screen} bench={bench} />}
            {/^(steps|trims)\./.test(part.where) && (
              <ListTools where={part.where} title={part.title} bench={bench} />
            )}
            {part.where === "bodice" && <BodiceKind screen={screen} bench={bench} onTable={onTable} />}
          </Sentences>
        );
        const isLast = stage === "bodice" && place === parts.length - 1;
        if (!isLast) return [sentences];
        // keyed beside the sentences, not within the last: what is half chosen stays when a step comes in above it
        return [
          sentences,
          <Fragment key="to the pieces">
            <HerBlock person={commission.person.id} screen={screen} bench={bench} />
            <AddTo list="steps" screen={screen} bench={bench} />
            <KeptSteps bench={bench} />
          </Fragment>,
        ];
      })}
      {stage === "lower" && <AddTo list="trims" screen={screen} bench={bench} />}
      {stage === "join" && <Seams screen={screen} onSeam={onSeam} />}
    </>
  );
}

/** Whether the lower part is cut already: then it stays as it is, and the ways to meet are those of the rescue. */
function CutAlready({ screen, bench }: { screen: Screen; bench: Bench }) {
  const [trouble, setTrouble] = useState("");
  const say = async () => {
    try {
      bench.change(await answer(api.POST("/api/cut", { body: screen.recipe as never })));
      setTrouble("");
    } catch (error) {
      setTrouble(error instanceof Refused ? error.message : text.lost);
    }
  };
  return (
    <div className="no-print mt-2">
      {screen.is_cut && <p className="mb-1 text-pencil">{text.cutAlready.stays}</p>}
      <Button onClick={say}>{screen.is_cut ? text.cutAlready.notCut : text.cutAlready.already}</Button>
      {trouble && (
        <p role="alert" className="text-thread">
          {trouble}
        </p>
      )}
    </div>
  );
}

/** Every seam with both its lengths; choosing one lays it on the ribbon. */
function Seams({ screen, onSeam }: { screen: Screen; onSeam: (name: string) => void }) {
  return (
    <ul aria-label={text.seams} className="no-print px-6 py-2 text-[15.5px]">
      {screen.seams.map((seam) => (
        <li key={seam.name}>
          <button
            type="button"
            onClick={() => onSeam(seam.name)}
            className="grid min-h-8 w-full grid-cols-[minmax(0,1fr)_auto_auto_auto] items-baseline gap-x-3 rounded-sm px-1 text-left hover:bg-lining"
          >
            <span>{seam.name}</span>
            <span>{seam.length_a}</span>
            <span>{seam.length_b}</span>
            <span className={seam.walks ? "text-pencil" : "font-semibold text-thread"}>{seam.verdict}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** Which school the bodice is drafted by, and the draft played. */
function BodiceKind({
  screen,
  bench,
  onTable,
}: {
  screen: Screen;
  bench: Bench;
  onTable: (table: Table) => void;
}) {
  const kind = String((screen.recipe.bodice as Record<string, unknown>).kind);
  const [bringing, setBringing] = useState(false);
  return (
    <div className="no-print flex flex-wrap items-center gap-2">
      <select
        aria-label={text.bodiceBy}
        value={kind}
        onChange={(event) => {
          const chosen = screen.bodices.find((choice) => choice.kind === event.target.value);
          if (chosen) bench.change({ bodice: chosen.bodice });
        }}
        className="min-h-8 rounded-sm border border-pencil bg-paper px-1.5"
      >
        {screen.bodices.map((choice) => (
          <option key={choice.kind} value={choice.kind}>
            {choice.title}
          </option>
        ))}
      </select>
      <WhatIs label={screen.bodices.find((choice) => choice.kind === kind)?.title ?? ""} />
      <Button onClick={() => setBringing(true)}>{text.bringIn}</Button>
      <OwnBlock
        open={bringing}
        unit={screen.unit}
        onOpenChange={setBringing}
        onTake={(bodice) => bench.change({ bodice })}
      />
      {screen.draft && (
        <>
          <Button onClick={() => onTable("draft")}>{text.play}</Button>
          <Button onClick={() => onTable("schools")}>{text.compare}</Button>
        </>
      )}
    </div>
  );
}
