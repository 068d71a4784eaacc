import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, Refused } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { OverSheet } from "../ui/Sheet";

/** What is said of a dress besides its recipe. */
export interface Said {
  id: number;
  title: string;
  occasion: string;
  due_on: string | null;
  person: { id: number; name: string };
}

const FIELDS = ["title", "person", "occasion", "due_on"] as const;
type Field = (typeof FIELDS)[number];

/** A dress's name, whose it is, what for and by when, said anew. */
export function SaidOf({
  row,
  open,
  onOpenChange,
  onKept,
}: {
  row: Said;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onKept?: (said: Said) => void;
}) {
  return (
    <OverSheet title={text.saidOf.title} open={open} onOpenChange={onOpenChange} wide="max-w-md">
      <Form
        row={row}
        onDone={(kept) => {
          onKept?.(kept);
          onOpenChange(false);
        }}
      />
    </OverSheet>
  );
}

function Form({ row, onDone }: { row: Said; onDone: (kept: Said) => void }) {
  const records = useQueryClient();
  const [said, setSaid] = useState<Record<Field, string>>({
    title: row.title,
    person: row.person.name,
    occasion: row.occasion,
    due_on: row.due_on ?? "",
  });
  const [problems, setProblems] = useState<Partial<Record<Field | "", string>>>({});
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const kept = await answer(
        api.PATCH("/api/commissions/{commission_id}", {
          params: { path: { commission_id: row.id } },
          body: { ...said, due_on: said.due_on || null },
        }),
      );
      await Promise.all([
        records.invalidateQueries({ queryKey: ["desk"] }),
        records.invalidateQueries({ queryKey: ["person"] }),
      ]);
      onDone(kept);
    } catch (error) {
      const refused = error instanceof Refused ? error.problem : null;
      const named = Object.fromEntries(refused?.errors.map((one) => [one.field, one.text]) ?? []);
      setProblems(Object.keys(named).length ? named : { "": refused?.detail || text.lost });
    }
  };
  return (
    <form onSubmit={keep} className="grid gap-3">
      {FIELDS.map((name) => (
        <label key={name} className="block">
          <span className="block text-pencil">{text.saidOf.fields[name]}</span>
          <input
            type={name === "due_on" ? "date" : "text"}
            value={said[name]}
            autoComplete="off"
            aria-invalid={problems[name] ? true : undefined}
            onChange={(event) => setSaid((now) => ({ ...now, [name]: event.target.value }))}
            className="w-full rounded-sm border border-pencil bg-paper px-2 py-1 text-lg aria-invalid:border-2 aria-invalid:border-thread"
          />
          {problems[name] && (
            <span role="alert" className="block text-thread">
              {problems[name]}
            </span>
          )}
        </label>
      ))}
      {problems[""] && (
        <p role="alert" className="text-thread">
          {problems[""]}
        </p>
      )}
      <div>
        <Button type="submit">{text.saidOf.keep}</Button>
      </div>
    </form>
  );
}
