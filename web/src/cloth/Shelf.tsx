import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useEffect, useState } from "react";
import { answer, api, Refused, type ShelfCloth } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Choose } from "../ui/Choose";
import { preferredUnit, readingOf } from "../ui/preferences";
import { OverSheet } from "../ui/Sheet";
import { ClothNotes } from "./ClothNotes";
import { Falls } from "./Falls";
import { Swatch } from "./OneLay";

/** The shelf of cloths. */
export function Shelf() {
  const unit = preferredUnit.use();
  const shelf = useQuery({
    queryKey: ["cloths", unit],
    queryFn: () => answer(api.GET("/api/cloths", { params: { query: readingOf(unit) } })),
  });
  const [open, setOpen] = useState<ShelfCloth | "new" | null>(null);
  useEffect(() => {
    document.title = `${text.shelf.title} · ${text.title}`;
  }, []);
  return (
    <main className="mx-auto w-full max-w-5xl flex-1 overflow-auto px-7 py-4">
      <div className="mb-3 flex items-baseline justify-between gap-4">
        <h1 className="font-title text-3xl">{text.shelf.title}</h1>
        <Button onClick={() => setOpen("new")}>{text.shelf.add}</Button>
      </div>
      {shelf.isError && <p role="alert">{text.lost}</p>}
      {shelf.data?.length === 0 && <p className="text-xl">{text.shelf.none}</p>}
      <ul className="border-t border-chalk">
        {shelf.data?.map((one) => (
          <li key={one.id} className="border-b border-chalk">
            <button
              type="button"
              aria-label={text.shelf.change(one.name)}
              onClick={() => setOpen(one)}
              className="grid w-full grid-cols-[2rem_14rem_minmax(0,1fr)] items-center gap-3 px-2 py-2 text-left hover:bg-linen max-[700px]:grid-cols-[2rem_1fr]"
            >
              <Swatch colour={one.colour} />
              <span className="font-title text-xl">{one.name}</span>
              <span className="text-pencil max-[700px]:col-span-2">{one.said.join("; ")}</span>
            </button>
          </li>
        ))}
      </ul>
      {open && (
        <OneCloth
          key={open === "new" ? "new" : open.id}
          cloth={open === "new" ? null : open}
          onClose={() => setOpen(null)}
        />
      )}
    </main>
  );
}

type Fields = Record<string, string | boolean>;

const NUMBERS = ["price", "shrinks", "across", "along"];

/** A cloth looked at and changed; what is typed is read by the core. */
function OneCloth({ cloth, onClose }: { cloth: ShelfCloth | null; onClose: () => void }) {
  const unit = preferredUnit.use();
  const client = useQueryClient();
  const [name, setName] = useState(cloth?.name ?? "");
  const [typed, setTyped] = useState<Fields>({});
  const [wrong, setWrong] = useState<{ field: string; text: string }[]>([]);
  const known = cloth?.fields ?? {};
  const shown = (field: string) => String(typed[field] ?? known[field] ?? "");

  const again = async () => {
    await client.invalidateQueries({ queryKey: ["cloths"] });
    onClose();
  };
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    const changed: Record<string, unknown> = { ...cloth?.cloth };
    for (const [field, value] of Object.entries(typed)) {
      const empty = typeof value === "string" && value.trim() === "";
      if (field === "nap") changed[field] = value ? "one_way" : "none";
      else if (empty) delete changed[field];
      else changed[field] = NUMBERS.includes(field) ? String(value).trim().replace(",", ".") : value;
    }
    try {
      await answer(
        api.PUT("/api/cloths", {
          params: { query: readingOf(unit) },
          body: { name, cloth: changed, in_the_place_of: cloth?.id ?? null },
        }),
      );
      await again();
    } catch (refused) {
      setWrong(
        refused instanceof Refused
          ? refused.problem.errors.length
            ? refused.problem.errors
            : [{ field: "", text: refused.message }]
          : [{ field: "", text: text.lost }],
      );
    }
  };
  const takeOff = async () => {
    if (!cloth) return;
    await api.DELETE("/api/cloths/{cloth_id}", { params: { path: { cloth_id: cloth.id } } });
    await again();
  };
  return (
    <OverSheet
      title={cloth ? text.shelf.change(cloth.name) : text.shelf.add}
      open
      onOpenChange={onClose}
      wide="max-w-2xl"
    >
      <form onSubmit={keep} className="grid grid-cols-2 gap-x-6 gap-y-3 max-[600px]:grid-cols-1">
        <label className="col-span-2 max-[600px]:col-span-1">
          <span className="block text-pencil">{text.shelf.name}</span>
          <input
            required
            maxLength={80}
            value={name}
            onChange={(event) => setName(event.target.value)}
            className={FIELD}
          />
        </label>
        {Object.entries(text.shelf.fields).map(([field, label]) => {
          const problem = wrong.find((one) => one.field.endsWith(field));
          return (
            <div key={field}>
              <label htmlFor={`cloth-${field}`} className="block text-pencil">
                {label}
              </label>
              {field === "colour" ? (
                <input
                  id={`cloth-${field}`}
                  type="color"
                  value={shown(field) || "#e8dfcd"}
                  onChange={(event) => setTyped({ ...typed, [field]: event.target.value })}
                  className="h-9 w-20 rounded-sm border border-pencil bg-paper"
                />
              ) : (
                <input
                  id={`cloth-${field}`}
                  value={shown(field)}
                  aria-invalid={problem ? true : undefined}
                  onChange={(event) => setTyped({ ...typed, [field]: event.target.value })}
                  className={FIELD}
                />
              )}
              {problem && (
                <span role="alert" className="block text-thread">
                  {problem.text}
                </span>
              )}
            </div>
          );
        })}
        <div>
          <label htmlFor="cloth-weight" className="block text-pencil">
            {text.shelf.weight}
          </label>
          <Choose
            id="cloth-weight"
            value={shown("weight") || "unsaid"}
            choices={text.shelf.weights}
            onChoose={(value) => setTyped({ ...typed, weight: value })}
            className="w-full"
          />
        </div>
        <div>
          <label htmlFor="cloth-drape" className="block text-pencil">
            {text.shelf.drape}
          </label>
          <Choose
            id="cloth-drape"
            value={shown("drape") || "unsaid"}
            choices={text.shelf.drapes}
            onChoose={(value) => setTyped({ ...typed, drape: value })}
            className="w-full"
          />
        </div>
        <label className="col-span-2 flex items-center gap-2 max-[600px]:col-span-1">
          <input
            type="checkbox"
            checked={typeof typed.nap === "boolean" ? typed.nap : known.nap === "one_way"}
            onChange={(event) => setTyped({ ...typed, nap: event.target.checked })}
            className="size-4 accent-ink"
          />
          {text.shelf.nap}
        </label>
        {wrong
          .filter((one) => !Object.keys(text.shelf.fields).some((field) => one.field.endsWith(field)))
          .map((one) => (
            <p key={one.text} role="alert" className="col-span-2 text-thread">
              {one.text}
            </p>
          ))}
        <div className="col-span-2 flex gap-3 max-[600px]:col-span-1">
          <Button type="submit">{text.shelf.keep}</Button>
          {cloth && (
            <Button look="quiet" onClick={takeOff}>
              {text.shelf.takeOff}
            </Button>
          )}
        </div>
      </form>
      <Falls
        by={{
          weight: shown("weight") || "unsaid",
          drape: shown("drape") || "unsaid",
          across: shown("across"),
          along: shown("along"),
        }}
        colour={shown("colour") || null}
        unit={unit}
      />
      {cloth && <ClothNotes cloth={cloth.id} />}
    </OverSheet>
  );
}

const FIELD =
  "w-full rounded-sm border border-pencil bg-paper px-2 py-1 text-lg aria-invalid:border-2 aria-invalid:border-thread";
