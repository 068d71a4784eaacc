import type { Difference } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import type { Bench } from "./useRecipe";

const clock = (at: string) =>
  new Intl.DateTimeFormat(undefined, { hour: "2-digit", minute: "2-digit", hourCycle: "h23" }).format(
    new Date(at),
  );

/** Whether what is on the bench is kept: said only of what was just acknowledged, with what is not in it. */
export function SavedMark({ bench, onFind }: { bench: Bench; onFind: (path: string) => void }) {
  const { saving, kept, problems, notDrawn } = bench;
  const unread = problems[0];
  const at = `${text.saved} ${clock(kept.at)}`;
  return (
    <div role="status" data-testid="saved" className="max-w-80 text-sm leading-tight text-pencil">
      {bench.isReadKept && <p>{at}</p>}
      {!bench.isReadKept && (saving.state === "saved" || saving.state === "saving") && <p>{text.saving}</p>}
      {saving.state === "lost" && <p className="text-thread">{saving.why || text.unsaved}</p>}
      {saving.state === "stale" && <p className="text-thread">{text.stale.mark}</p>}
      {notDrawn && <p className="text-thread">{text.notDrawn}</p>}
      {unread && (
        <p className="text-thread">
          {text.unread}{" "}
          <button type="button" className="min-h-6 underline" onClick={() => onFind(unread.field)}>
            {text.showWord}
          </button>
        </p>
      )}
    </div>
  );
}

/** What must be decided or known before work goes on: another window's save, a draft left behind, a damaged one. */
export function Notices({ bench, unreadable }: { bench: Bench; unreadable: string }) {
  const { saving, offer } = bench;
  return (
    <>
      {unreadable && <Notice title={text.unreadable}>{unreadable}</Notice>}
      {saving.state === "stale" && (
        <Notice title={text.stale.title(saving.theirs.version, clock(saving.theirs.saved_at))}>
          <Differences rows={saving.theirs.differences} />
          <p className="my-1">{text.stale.both}</p>
          <div className="flex flex-wrap gap-2">
            <Button onClick={bench.keepMine}>{text.stale.mine}</Button>
            <Button onClick={bench.takeTheirs}>{text.stale.theirs}</Button>
          </div>
        </Notice>
      )}
      {offer && (
        <Notice title={text.offer.title(clock(offer.draft.at), offer.draft.from)}>
          <Differences rows={offer.differences} />
          <div className="mt-1 flex flex-wrap gap-2">
            <Button onClick={bench.takeOffer}>{text.offer.take}</Button>
            <Button onClick={bench.refuseOffer}>{text.offer.refuse}</Button>
          </div>
        </Notice>
      )}
      {bench.damaged && (
        <Notice title={text.damagedDraft}>
          <Button onClick={bench.forgetDamaged}>{text.done}</Button>
        </Notice>
      )}
      {bench.notDrawn && <Notice title={text.notDrawn}>{bench.notDrawn}</Notice>}
    </>
  );
}

function Notice({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section
      aria-label={title}
      className="no-print max-h-56 overflow-auto border-b border-thread bg-mend px-5 py-2"
    >
      <h2 className="font-semibold text-thread">{title}</h2>
      {children}
    </section>
  );
}

/** The words in which two states differ. */
export function Differences({ rows }: { rows: Difference[] }) {
  if (!rows.length) return <p className="text-pencil">{text.noDifference}</p>;
  return (
    <table className="text-sm" data-testid="differences">
      <tbody>
        {rows.map((row) => (
          <tr key={row.path} className="align-top">
            <th scope="row" className="pr-4 text-left font-normal text-pencil">
              {row.part}, {row.label}
            </th>
            <td className="pr-2">{row.before}</td>
            <td aria-hidden className="pr-2">
              →
            </td>
            <td className="font-semibold">{row.after}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
