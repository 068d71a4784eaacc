import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { answer, api, type Lay, type Recipe, Refused, type ShelfCloth, type Unit } from "../api/client";
import type { Changes } from "../recipe/draft";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Switcher } from "../ui/Choice";
import { Folded } from "../ui/Folded";
import { LengthField } from "../ui/LengthField";
import { readingOf } from "../ui/preferences";
import { Table } from "../ui/Table";
import { Tick } from "../ui/Tick";
import { LaidCloth } from "./LaidCloth";
import { MadeFrom, WaysOut } from "./WaysOut";

type AskedOf = Lay["asked"];

/** One cloth: how it is laid, how much of it is bought, its picture, and the search for a shorter lay. */
export function OneLay({
  commission,
  recipe,
  unit,
  laid,
  onTake,
  onChange,
}: {
  commission: number;
  recipe: Recipe;
  unit: Unit;
  laid: Lay;
  onTake: (cloth: ShelfCloth["cloth"]) => void;
  onChange: (changes: Changes) => void;
}) {
  const [now, setNow] = useState(laid);
  const [trouble, setTrouble] = useState("");
  const [busy, setBusy] = useState(false);
  useEffect(() => setNow(laid), [laid]);
  const path = { commission_id: commission };

  const send = async (call: () => Promise<Lay>) => {
    setBusy(true);
    setTrouble("");
    try {
      setNow(await call());
    } catch (wrong) {
      setNow(laid);
      setTrouble(wrong instanceof Refused ? wrong.message : text.lost);
    } finally {
      setBusy(false);
    }
  };
  const lay = (asked: AskedOf, spots: Lay["spots"] | null = null) => {
    setNow((shown) => ({ ...shown, asked })); // what was asked stands at once, and what comes of it follows
    return send(() =>
      answer(
        api.PUT("/api/commissions/{commission_id}/lays", {
          params: { path, query: readingOf(unit) },
          body: { recipe: recipe as never, asked, spots, opened_from: now.opened_from },
        }),
      ),
    );
  };
  const search = (seconds: number) =>
    send(() =>
      answer(
        api.POST("/api/commissions/{commission_id}/lays/search", {
          params: { path, query: readingOf(unit) },
          body: { recipe: recipe as never, asked: { ...now.asked, seconds } },
        }),
      ),
    );
  const stop = () =>
    api.POST("/api/commissions/{commission_id}/lays/{role}/stop", {
      params: { path: { ...path, role: now.cloth } },
    });

  const searching = now.state === "searching";
  useEffect(() => {
    if (!searching) return;
    const said = new URLSearchParams(
      Object.entries(readingOf(unit)).map(([name, value]) => [name, String(value)]),
    );
    const events = new EventSource(`/api/commissions/${commission}/lays/${laid.cloth}/events?${said}`);
    events.onmessage = (event) => {
      const next = JSON.parse(event.data) as Lay;
      setNow(next);
      if (next.state !== "searching") events.close();
    };
    return () => events.close();
  }, [searching, commission, laid.cloth, unit]);

  const asked = now.asked;
  const faulty = now.faults.length > 0;
  return (
    <article aria-label={text.lays.picture(now.cloth)} className="mb-7 border-t border-chalk pt-2">
      <h3 className="flex flex-wrap items-center gap-x-3 font-title text-xl">
        <Swatch colour={now.colour} />
        {now.name ? `${text.lays.roles[now.cloth]}: ${now.name}` : text.lays.roles[now.cloth]}
        <FromShelf unit={unit} cloth={now.cloth} taken={now.name} onTake={onTake} />
      </h3>
      {now.placed.length > 0 && (
        <p className="text-lg" data-testid="to-buy">
          <strong>{now.buy}</strong> {text.lays.of(now.width_text)}
          {now.cost && <>, {text.lays.cost(now.cost)}</>}; {text.lays.use(now.use)}
          {now.too_wide.length > 0 && ` ${text.lays.without}`}
        </p>
      )}
      <p className="text-pencil">
        {now.working}.{now.left && ` ${text.lays.left(now.left)}`}
        {now.facings && ` ${now.facings}`}
        {!now.said && ` ${text.lays.unsaid}`}
        {now.one_way && ` ${text.lays.oneWay}`}
      </p>
      {now.missing && <Alert>{text.lays.missing(now.missing)}</Alert>}
      <div className="my-2 flex flex-wrap items-center gap-x-5 gap-y-2">
        <Switcher
          label={text.lays.folding}
          value={asked.folding ?? "flat"}
          choices={text.lays.foldings.map(([value, words]) => ({ value, text: words }))}
          onChoose={(folding) => lay({ ...asked, folding, pins: [] })}
        />
        {asked.folding === "to width" && (
          <FoldWidth laid={now} unit={unit} onFold={(folded) => lay({ ...asked, folded })} />
        )}
        {now.printed && (
          <fieldset className="flex flex-wrap items-center gap-x-3">
            <legend className="float-left mr-2">{text.lays.match}</legend>
            {text.lays.seams.map(([over, words]) => (
              <Tick
                key={over}
                on={(asked.over ?? []).includes(over)}
                onTick={(on) =>
                  lay({
                    ...asked,
                    over: on ? [...(asked.over ?? []), over] : (asked.over ?? []).filter((o) => o !== over),
                  })
                }
              >
                {words}
              </Tick>
            ))}
          </fieldset>
        )}
        {now.border && (
          <Tick on={asked.border ?? false} onTick={(border) => lay({ ...asked, border })}>
            {text.lays.border}
          </Tick>
        )}
        <label className="flex items-center gap-2">
          {text.lays.safety}
          <select
            value={asked.safety ?? 0}
            onChange={(event) => lay({ ...asked, safety: Number(event.target.value) }, now.spots)}
            className="min-h-8 rounded-sm border border-pencil bg-paper px-1"
          >
            {[0, 3, 5, 10, 15].map((share) => (
              <option key={share} value={share}>
                {text.lays.percent(share)}
              </option>
            ))}
          </select>
        </label>
      </div>
      {now.joined.map((one) => (
        <p key={one.name}>{text.lays.joined(one.name, one.across, one.widths)}</p>
      ))}
      {now.too_wide.map((one) => (
        <Alert key={one.name}>{text.lays.tooWide(one.name, one.across)}</Alert>
      ))}
      {now.cornered.map((said) => (
        <p key={said}>{said}</p>
      ))}
      {(now.too_wide.length > 0 || now.missing) && (
        <WaysOut
          recipe={recipe}
          unit={unit}
          asked={asked}
          onChange={onChange}
          onLay={(other) => lay({ ...other, pins: [] })}
        />
      )}
      {now.refused.map((why) => (
        <Alert key={why}>{why}</Alert>
      ))}
      {now.faults.map((fault) => (
        <Alert key={fault}>{fault}</Alert>
      ))}
      {trouble && <Alert>{trouble}</Alert>}
      {now.placed.length > 0 && (
        <>
          <div className="flex flex-wrap items-center gap-2">
            {searching ? (
              <>
                <span role="status">{text.lays.searching(now.length_text)}</span>
                <Button onClick={stop}>{text.lays.stop}</Button>
              </>
            ) : (
              <>
                <Button disabled={busy} onClick={() => search(10)}>
                  {text.lays.search(10)}
                </Button>
                <Button disabled={busy} onClick={() => search(60)}>
                  {text.lays.search(60)}
                </Button>
                {busy && <span className="text-pencil">{text.lays.laying}</span>}
                {!busy && now.state !== "laid" && <span role="status">{text.lays.ended[now.state]}</span>}
                {(asked.pins ?? []).length > 0 && (
                  <>
                    <Button disabled={busy} onClick={() => lay(asked)}>
                      {text.lays.roundPins((asked.pins ?? []).length)}
                    </Button>
                    <Button look="quiet" disabled={busy} onClick={() => lay({ ...asked, pins: [] })}>
                      {text.lays.unpin}
                    </Button>
                  </>
                )}
                {faulty && (asked.pins ?? []).length === 0 && (
                  <Button disabled={busy} onClick={() => lay(asked)}>
                    {text.lays.again}
                  </Button>
                )}
              </>
            )}
            {now.trouble && <span className="text-thread">{now.trouble}</span>}
          </div>
          <LaidCloth
            laid={now}
            unit={unit}
            movable={!searching}
            onMove={(spots, pins) => lay({ ...asked, pins }, spots)}
          />
          <MadeFrom recipe={recipe} unit={unit} asked={asked} onChange={onChange} />
          <Folded title={text.lays.where}>
            {() => (
              <Table heads={text.lays.heads}>
                {now.placed.map((one, k) => (
                  <tr key={one.number} className="border-t border-chalk">
                    <td className="pr-6">{one.number}</td>
                    <th scope="row" className="pr-6 text-left font-semibold">
                      {one.name}
                    </th>
                    <td className="pr-6">{one.from_cut_end}</td>
                    <td className="pr-6">{one.from_selvedge}</td>
                    <td>
                      {[
                        one.layers === "on the opened cloth" ? "" : one.layers,
                        now.spots[k]?.turned ? text.lays.turned : "",
                        one.pinned ? text.lays.pinned : "",
                      ]
                        .filter(Boolean)
                        .join(", ")}
                    </td>
                  </tr>
                ))}
              </Table>
            )}
          </Folded>
        </>
      )}
    </article>
  );
}

export function Swatch({ colour }: { colour: string | null | undefined }) {
  return (
    <span
      aria-hidden
      className="inline-block size-6 rounded-sm border border-basting"
      style={{ background: colour ?? "var(--color-lining)" }}
    />
  );
}

function Alert({ children }: { children: ReactNode }) {
  return (
    <p role="alert" className="text-thread">
      {children}
    </p>
  );
}

/** How wide a cloth lies double: typed, and laid when it is left. */
function FoldWidth({ laid, unit, onFold }: { laid: Lay; unit: Unit; onFold: (folded: never) => void }) {
  const [typed, setTyped] = useState<string | number | null>(null);
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed !== null) onFold(typed as never);
      }}
      onBlur={() => {
        if (typed !== null) onFold(typed as never);
        setTyped(null);
      }}
    >
      <LengthField
        label={text.lays.foldedTo}
        shown={laid.folded_text}
        value={laid.folded}
        unit={unit}
        onType={setTyped}
        onStep={setTyped}
      />
    </form>
  );
}

/** The shelf, to take a cloth from into the dress. */
function FromShelf({
  unit,
  cloth,
  taken,
  onTake,
}: {
  unit: Unit;
  cloth: Lay["cloth"];
  taken: string;
  onTake: (cloth: ShelfCloth["cloth"]) => void;
}) {
  const shelf = useQuery({
    queryKey: ["cloths", unit],
    queryFn: () => answer(api.GET("/api/cloths", { params: { query: readingOf(unit) } })),
  });
  if (!shelf.data?.length) return null;
  return (
    <select
      aria-label={text.lays.fromShelf(text.lays.roles[cloth])}
      value=""
      onChange={(event) => {
        const chosen = shelf.data.find((one) => String(one.id) === event.target.value);
        if (chosen) onTake(chosen.cloth);
      }}
      className="min-h-8 max-w-64 rounded-sm border border-pencil bg-paper px-1 font-body text-base"
    >
      <option value="">{taken ? text.lays.another : text.lays.take}</option>
      {shelf.data.map((one) => (
        <option key={one.id} value={one.id}>
          {[one.name, one.said[0]].filter(Boolean).join(", ")}
        </option>
      ))}
    </select>
  );
}
