import { useMutation, useQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api } from "../api/client";
import { Drawing } from "../dress/Dress";
import { text } from "../text";
import { Button } from "../ui/Button";
import { paperSize, preferredUnit } from "../ui/preferences";
import { Wrong } from "../ui/Wrong";

/** A bodice of an earlier dress of hers is chosen by its number behind this. */
const OF = "of ";

/** A new dress in one sentence: what it is, for whom, over which bodice, for what and by when. */
export function NewDress() {
  const [family, setFamily] = useState("half_circle");
  const [title, setTitle] = useState("");
  const [person, setPerson] = useState("");
  const [bodice, setBodice] = useState("measured");
  const [unit, setUnit] = useState(preferredUnit.read());
  const [occasion, setOccasion] = useState("");
  const [due, setDue] = useState("");
  const [like, setLike] = useState("");
  const [asked, setAsked] = useState("");
  const go = useNavigate();
  useEffect(() => {
    const settle = setTimeout(() => setAsked(person.trim()), 250);
    return () => clearTimeout(settle);
  }, [person]);
  useEffect(() => {
    document.title = `${text.newDress} · ${text.title}`;
  }, []);
  const from = useQuery({
    queryKey: ["beginning", asked],
    queryFn: () => answer(api.GET("/api/beginning", { params: { query: { person: asked } } })),
    placeholderData: (before) => before,
  });
  /** Asked under one name, however often it is clicked or tried again. */
  const begunAs = useRef(crypto.randomUUID());
  const begin = useMutation({
    mutationFn: () =>
      answer(
        api.POST("/api/commissions", {
          body: {
            title,
            person,
            occasion,
            due_on: due || null,
            unit,
            family: like ? "" : family,
            bodice: like || bodice.startsWith(OF) ? "" : bodice,
            bodice_of: !like && bodice.startsWith(OF) ? Number(bodice.slice(OF.length)) : null,
            like: like ? Number(like) : null,
            begun_as: begunAs.current,
          },
        }),
      ),
    onSuccess: (made) => {
      preferredUnit.write(unit);
      if (unit === "in" && paperSize.isUsual()) paperSize.write("letter");
      go(`/commission/${made.id}`);
    },
  });
  /** A dress from its own file, as it was taken out. */
  const back = useMutation({
    mutationFn: async (file: File) => {
      const body = new FormData();
      body.append("file", file);
      body.append("person", person);
      const sent = await fetch(`/api/commissions/brought-back?unit=${unit}`, { method: "POST", body });
      const said = await sent.json();
      if (!sent.ok) throw new Error(said.detail);
      return said as { id: number };
    },
    onSuccess: (made) => go(`/commission/${made.id}`),
  });
  const families = from.data?.families ?? [];
  const chosen = families.find((one) => one.key === family);
  const earlier = from.data?.earlier ?? [];
  const drafted = !like && (bodice !== "measured" || chosen?.own_bodice === true);
  return (
    <main className="print-flow min-h-0 flex-1 overflow-auto">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          begin.mutate();
        }}
      >
        <div className="border-b border-chalk px-7 py-4">
          <h1 className="sr-only">{text.newDress}</h1>
          <p className="font-title text-[27px] leading-[3rem]">
            {text.begins.a}{" "}
            {like ? (
              <Blank>{earlier.find((one) => String(one.id) === like)?.title}</Blank>
            ) : (
              <Blank>{chosen?.noun ?? "…"}</Blank>
            )}{" "}
            {text.begins.called}{" "}
            <input
              aria-label={text.dressName}
              required
              maxLength={120}
              // biome-ignore lint/a11y/noAutofocus: the page is this sentence, and its first blank comes first
              autoFocus
              value={title}
              placeholder={text.begins.whichName}
              onChange={(event) => setTitle(event.target.value)}
              className={`${LOOK} field-sizing-content min-w-44 max-w-full`}
            />{" "}
            {text.begins.for}{" "}
            <input
              aria-label={text.personName}
              required
              maxLength={120}
              list="people"
              value={person}
              placeholder={text.begins.whom}
              onChange={(event) => setPerson(event.target.value)}
              className={`${LOOK} field-sizing-content min-w-36 max-w-full`}
            />
            <datalist id="people">
              {from.data?.people.map((name) => (
                <option key={name} value={name} />
              ))}
            </datalist>
            {!like && !chosen?.own_bodice && (
              <>
                , {text.begins.over}{" "}
                <select
                  aria-label={text.begins.bodice}
                  value={bodice}
                  onChange={(event) => setBodice(event.target.value)}
                  className={`${LOOK} max-w-[24rem]`}
                >
                  {from.data?.bodices.map((one) => (
                    <option key={one.kind} value={one.kind}>
                      {lower(one.title)}
                    </option>
                  ))}
                  {earlier
                    .filter((one) => one.own_bodice)
                    .map((one) => (
                      <option key={one.id} value={OF + one.id}>
                        {text.begins.bodiceOf(one.title)}
                      </option>
                    ))}
                </select>
              </>
            )}
            , {text.begins.in}{" "}
            <select
              aria-label={text.unit}
              value={unit}
              onChange={(event) => setUnit(event.target.value === "in" ? "in" : "cm")}
              className={LOOK}
            >
              <option value="cm">{text.begins.units.cm}</option>
              <option value="in">{text.begins.units.in}</option>
            </select>
            , {text.begins.occasionFor}{" "}
            <input
              aria-label={text.begins.occasion}
              maxLength={200}
              value={occasion}
              placeholder={text.begins.what}
              onChange={(event) => setOccasion(event.target.value)}
              className={`${LOOK} field-sizing-content min-w-36 max-w-full`}
            />
            , {text.begins.by}{" "}
            <input
              aria-label={text.begins.due}
              type="date"
              value={due}
              onChange={(event) => setDue(event.target.value)}
              className={`${LOOK} w-48`}
            />
            .
          </p>
          {earlier.length > 0 && (
            <p className="mt-1 text-lg text-pencil">
              {text.begins.or}{" "}
              <select
                aria-label={text.begins.like}
                value={like}
                onChange={(event) => setLike(event.target.value)}
                className="min-h-8 border-b border-basting bg-paper font-semibold text-ink"
              >
                <option value="">{text.begins.likeNone}</option>
                {earlier.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.title}
                  </option>
                ))}
              </select>
            </p>
          )}
        </div>
        <fieldset disabled={like !== ""} className="bg-linen px-7 py-3 disabled:opacity-50">
          <legend className="sr-only">{text.begins.which}</legend>
          <div className="grid grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] gap-2">
            {families.map((one) => (
              <label
                key={one.key}
                className="flex cursor-pointer flex-col items-center rounded-sm border-2 border-transparent p-1 hover:bg-lining has-checked:border-ink has-focus-visible:outline-2 has-focus-visible:outline-ink"
              >
                <input
                  type="radio"
                  name="family"
                  value={one.key}
                  checked={family === one.key}
                  onChange={() => setFamily(one.key)}
                  className="sr-only"
                />
                <span className="block h-40 w-full">
                  <Drawing view={one.drawing} />
                </span>
                <span className="font-title text-lg leading-tight">{one.title}</span>
              </label>
            ))}
          </div>
          {families.length === 0 && <p className="py-10 text-center text-pencil">{text.begins.drawing}</p>}
        </fieldset>
        <div className="flex flex-wrap items-center gap-4 border-t border-chalk px-7 py-3">
          <p className="max-w-3xl flex-1 text-lg">
            {drafted && chosen && chosen.missing.length > 0
              ? text.begins.stillToTake(chosen.missing)
              : drafted
                ? text.begins.allTaken
                : like
                  ? text.begins.asItIs
                  : text.begins.alongTheWaist}
          </p>
          {back.error && (
            <p role="alert" className="text-thread">
              {back.error.message || text.lost}
            </p>
          )}
          <Wrong error={begin.error} />
          <label className="ml-auto cursor-pointer underline underline-offset-4 hover:bg-lining has-focus-visible:outline-2">
            {text.begins.bringBack}
            <input
              type="file"
              accept=".zip,.json"
              className="sr-only"
              onChange={(event) => event.target.files?.[0] && back.mutate(event.target.files[0])}
            />
          </label>
          <Button
            type="submit"
            className="text-lg font-semibold"
            disabled={!title.trim() || !person.trim() || begin.isPending}
          >
            {text.begin}
          </Button>
        </div>
      </form>
    </main>
  );
}

const LOOK =
  "border-b-2 border-basting bg-paper px-1 font-semibold placeholder:font-normal placeholder:italic placeholder:text-pencil focus:bg-card";

const lower = (words: string) => words.charAt(0).toLowerCase() + words.slice(1);

function Blank({ children }: { children: ReactNode }) {
  return <strong className="border-b-2 border-basting px-1">{children}</strong>;
}
