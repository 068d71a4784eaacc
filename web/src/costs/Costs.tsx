import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { answer, api, type Costing, type CostLine, type Unit } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { pdfQuery, readingOf } from "../ui/preferences";
import { OverSheet } from "../ui/Sheet";
import { Wrong } from "../ui/Wrong";

const words = text.costs;

/** What the dress costs, line by line; what has no price is typed where it stands. */
export function Costs({
  commission,
  unit,
  onClose,
}: {
  commission: number;
  unit: Unit;
  onClose: () => void;
}) {
  const records = useQueryClient();
  const key = ["costs", commission, unit];
  const call = { params: { path: { commission_id: commission }, query: readingOf(unit) } };
  const costs = useQuery({
    queryKey: key,
    queryFn: () => answer(api.GET("/api/commissions/{commission_id}/costs", call)),
  });
  /** What has been said last: one thing may be typed before another is kept. */
  const latest = useRef<Costing | null>(null);
  const say = useMutation({
    scope: { id: `costs ${commission}` },
    mutationFn: (body: Costing) =>
      answer(api.PUT("/api/commissions/{commission_id}/costs", { ...call, body })),
    onSuccess: (made) => records.setQueryData(key, made),
    onError: () => {
      latest.current = null;
    },
  });
  const made = costs.data;
  const said = made?.said;
  const change = (more: (now: Costing) => Partial<Costing>) => {
    const now = latest.current ?? said;
    if (!now) return;
    latest.current = { ...now, ...more(now) };
    say.mutate(latest.current);
  };
  return (
    <OverSheet title={words.title} intro={words.intro} open onOpenChange={onClose} wide="max-w-3xl">
      <Wrong error={costs.error ?? say.error} />
      {made && said && (
        <>
          <table className="w-full text-[15.5px]">
            <tbody>
              {made.lines.map((line) => (
                <OneLine
                  key={line.key}
                  line={line}
                  onPrice={(price) => {
                    if (line.sort === "hours") change(() => ({ rate: price }));
                    else
                      change((now) => {
                        const prices = { ...now.prices };
                        if (price === null) delete prices[line.key];
                        else prices[line.key] = price;
                        return { prices };
                      });
                  }}
                  onTakeAway={() => {
                    const place = Number(line.key.split(" ")[1]);
                    change((now) => ({ extras: (now.extras ?? []).filter((_, k) => k !== place) }));
                  }}
                />
              ))}
              <Sum label={words.together} amount={made.together} />
              {said.adds ? <Sum label={words.added} amount={made.added} /> : null}
              <Sum label={words.total} amount={made.total} strong />
            </tbody>
          </table>
          {made.unpriced > 0 && <p className="mt-1 text-thread">{words.unpriced(made.unpriced)}</p>}
          <div className="mt-4 flex flex-wrap items-end gap-x-6 gap-y-2">
            <Amount
              label={words.hours}
              value={said.hours ?? null}
              onSay={(hours) => change(() => ({ hours }))}
            />
            <Amount
              label={words.adds}
              value={said.adds ?? 0}
              onSay={(adds) => change(() => ({ adds: adds ?? 0 }))}
            />
          </div>
          <Extra onAdd={(one) => change((now) => ({ extras: [...(now.extras ?? []), one] }))} />
          <p className="mt-4">
            <a
              href={`/api/commissions/${commission}/quote.pdf?${pdfQuery(unit)}`}
              download
              className="underline underline-offset-4 hover:bg-lining"
            >
              {words.quote}
            </a>
          </p>
        </>
      )}
    </OverSheet>
  );
}

function OneLine({
  line,
  onPrice,
  onTakeAway,
}: {
  line: CostLine;
  onPrice: (price: number | null) => void;
  onTakeAway: () => void;
}) {
  const isAsked = line.sort === "notion" || line.sort === "hours";
  return (
    <tr className="border-t border-chalk align-baseline">
      <th scope="row" className="py-1 pr-4 text-left font-normal">
        {line.what}
      </th>
      <td className="pr-4 text-pencil">{line.working}</td>
      <td className="pr-4">
        {isAsked && (
          <Amount
            label={line.sort === "hours" ? words.rate : words.price(line.what)}
            quiet
            value={line.price}
            onSay={onPrice}
          />
        )}
        {line.sort === "cloth" && !line.amount && <span className="text-pencil">{words.toShelf}</span>}
        {line.sort === "extra" && (
          <Button look="quiet" aria-label={words.takeAway(line.what)} onClick={onTakeAway}>
            ×
          </Button>
        )}
      </td>
      <td className="text-right tabular-nums">{line.amount || "—"}</td>
    </tr>
  );
}

function Sum({ label, amount, strong = false }: { label: string; amount: string; strong?: boolean }) {
  return (
    <tr className={`border-t ${strong ? "border-ink font-semibold" : "border-chalk"}`}>
      <th scope="row" colSpan={3} className="py-1 text-left font-[inherit]">
        {label}
      </th>
      <td className="text-right tabular-nums">{amount}</td>
    </tr>
  );
}

/** A number that is typed; what is no number is said, and stays. */
function Amount({
  label,
  value,
  quiet = false,
  onSay,
}: {
  label: string;
  value: number | null;
  quiet?: boolean;
  onSay: (value: number | null) => void;
}) {
  const [typed, setTyped] = useState(value === null ? "" : String(value));
  const read = typed.trim() === "" ? null : Number(typed.trim().replace(",", "."));
  const wrong = read !== null && !(read >= 0 && Number.isFinite(read));
  const keep = () => {
    if (!wrong && read !== value) onSay(read);
  };
  return (
    <label className="inline-block">
      <span className={quiet ? "sr-only" : "block text-pencil"}>{label}</span>
      <input
        value={typed}
        inputMode="decimal"
        aria-invalid={wrong || undefined}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => event.key === "Enter" && keep()}
        className="w-24 rounded-sm border border-pencil bg-paper px-2 py-0.5 text-right tabular-nums aria-invalid:border-2 aria-invalid:border-thread"
      />
      {wrong && (
        <span role="alert" className="block text-thread">
          {words.notNumber}
        </span>
      )}
    </label>
  );
}

function Extra({ onAdd }: { onAdd: (extra: { what: string; amount: number }) => void }) {
  const [what, setWhat] = useState("");
  const [amount, setAmount] = useState("");
  const read = Number(amount.trim().replace(",", "."));
  const whole = what.trim() !== "" && amount.trim() !== "" && read >= 0 && Number.isFinite(read);
  return (
    <form
      className="mt-3 flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (!whole) return;
        onAdd({ what, amount: read });
        setWhat("");
        setAmount("");
      }}
    >
      <label>
        <span className="block text-pencil">{words.extra}</span>
        <input
          value={what}
          maxLength={120}
          onChange={(event) => setWhat(event.target.value)}
          className="w-72 rounded-sm border border-pencil bg-paper px-2 py-0.5"
        />
      </label>
      <label>
        <span className="sr-only">{words.amount(words.extra)}</span>
        <input
          value={amount}
          inputMode="decimal"
          onChange={(event) => setAmount(event.target.value)}
          className="w-24 rounded-sm border border-pencil bg-paper px-2 py-0.5 text-right"
        />
      </label>
      <Button type="submit" disabled={!whole}>
        {words.addExtra}
      </Button>
    </form>
  );
}
