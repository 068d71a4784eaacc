import { useEffect, useState } from "react";
import { answer, api, type Fullness, type Hang, type Recipe, type Unit } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { readingOf } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";
import { useHanging } from "./useHanging";

/** The same dress with less and with more fullness, in the same cloth, hung beside it. */
export default function Beside({ hang, recipe, unit }: { hang: Hang; recipe: Recipe; unit: Unit }) {
  const [found, setFound] = useState<Fullness | null>(null);
  const [asked, setAsked] = useState(false);
  const [wrong, setWrong] = useState<unknown>(null);
  useEffect(() => {
    setAsked(false);
    answer(api.POST("/api/hangs/beside", { params: { query: readingOf(unit) }, body: recipe as never })).then(
      setFound,
      setWrong,
    );
  }, [recipe, unit]);
  if (wrong) return <Wrong error={wrong} />;
  if (!found?.others.length) return null;
  return (
    <section aria-label={text.hang.beside} className="mt-4">
      <h3 className="mb-1 font-title text-xl">{text.hang.beside}</h3>
      {asked ? (
        <div className="grid grid-cols-3 gap-3">
          <One said={found.said} hang={hang} isHers />
          {found.others.map((other) => (
            <Other
              key={other.said}
              said={other.said}
              recipe={other.recipe as Recipe}
              unit={unit}
              after={hang.number}
            />
          ))}
        </div>
      ) : (
        <p>
          {text.hang.besideHow(
            found.said,
            found.others.map(({ said }) => said),
          )}{" "}
          <Button className="no-print" onClick={() => setAsked(true)}>
            {text.hang.besideAsk}
          </Button>
        </p>
      )}
    </section>
  );
}

function Other({ said, recipe, unit, after }: { said: string; recipe: Recipe; unit: Unit; after: number }) {
  const { hang, wrong, begin } = useHanging(unit);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is hung once, when it is asked for
  useEffect(() => begin(recipe, after), [begin]);
  return wrong ? <Wrong error={wrong} /> : <One said={said} hang={hang} />;
}

function One({ said, hang, isHers = false }: { said: string; hang: Hang | null; isHers?: boolean }) {
  return (
    <figure data-testid="beside" data-state={hang?.state} className="min-w-0">
      <figcaption className="font-semibold">{isHers ? text.hang.hers(said) : said}</figcaption>
      {hang?.rest ? (
        <img
          src={`/api/hangs/${hang.number}/pictures/front`}
          alt={text.hang.picture}
          className="h-72 w-full object-contain"
        />
      ) : (
        <p className="text-pencil">{text.hang.state[hang?.state ?? "falling"]}</p>
      )}
      {hang?.trouble && <p role="alert">{hang.trouble}</p>}
      {hang?.rest && (
        <dl>
          {Object.entries(hang.rest.figures).map(([what, value]) => (
            <div key={what} className="border-chalk border-b py-0.5">
              <dt className="text-pencil">{what}</dt>
              <dd>{value}</dd>
            </div>
          ))}
        </dl>
      )}
    </figure>
  );
}
