import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, done, type OnePerson } from "../api/client";
import { dropPicture } from "../dress/pictures";
import { forgetDress } from "../recipe/draft";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Choose } from "../ui/Choose";
import { pdfQuery, preferredUnit } from "../ui/preferences";
import { forget } from "../ui/recent";
import { OverSheet } from "../ui/Sheet";
import { Wrong } from "../ui/Wrong";

const words = text.people;

/** Who she is: her name, what is to be known of her, and what can be done with her entry. */
export function PersonWays({ person, onSaid }: { person: OnePerson; onSaid: () => void }) {
  const [asked, setAsked] = useState<"" | "name" | "merge" | "erase">("");
  const unit = preferredUnit.use();
  const path = { params: { path: { person_id: person.id } } };
  const say = useMutation({
    mutationFn: (body: { name?: string; remarks?: string; put_away?: boolean }) =>
      done(api.PATCH("/api/people/{person_id}", { ...path, body })),
    onSuccess: (_, said) => {
      if (said.name !== undefined) setAsked(""); // another sheet may have been opened meanwhile
      onSaid();
    },
  });
  const close = (open: boolean) => {
    if (!open) setAsked("");
  };
  return (
    <div className="mb-3">
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h1 className="mr-2 font-title text-3xl">{person.name}</h1>
        <Button look="quiet" onClick={() => setAsked("name")}>
          {words.sayAnew}
        </Button>
        <Button look="quiet" onClick={() => say.mutate({ put_away: !person.put_away })}>
          {person.put_away ? words.bringBack : words.putAway}
        </Button>
        <Button look="quiet" onClick={() => setAsked("merge")}>
          {words.merge}
        </Button>
        <a
          href={`/api/people/${person.id}/everything.zip?unit=${unit}`}
          download
          className="px-2.5 py-1 hover:bg-lining"
        >
          {words.everything}
        </a>
        <a
          href={`/api/people/${person.id}/measuring-sheet.pdf?${pdfQuery(unit)}`}
          download
          className="px-2.5 py-1 hover:bg-lining"
        >
          {words.measuringSheet}
        </a>
        <Button look="quiet" onClick={() => setAsked("erase")}>
          {words.erase}
        </Button>
      </div>
      {person.put_away && <p className="text-pencil">{words.isPutAway}</p>}
      {asked === "" && <Wrong error={say.error} />}
      <Remarks key={person.remarks} kept={person.remarks} onKeep={(remarks) => say.mutate({ remarks })} />
      <OverSheet title={words.sayAnew} open={asked === "name"} onOpenChange={close} wide="max-w-md">
        <Line
          label={words.name}
          begin={person.name}
          act={words.keepName}
          onSay={(name) => say.mutate({ name })}
        />
        <Wrong error={say.error} />
      </OverSheet>
      <OverSheet
        title={words.mergeTitle(person.name)}
        intro={words.mergeHelp(person.name)}
        open={asked === "merge"}
        onOpenChange={close}
        wide="max-w-md"
      >
        <Merge person={person} />
      </OverSheet>
      <OverSheet
        title={words.eraseTitle(person.name)}
        intro={words.eraseHelp}
        open={asked === "erase"}
        onOpenChange={close}
        wide="max-w-lg"
      >
        <Erase person={person} />
      </OverSheet>
    </div>
  );
}

function Remarks({ kept, onKeep }: { kept: string; onKeep: (remarks: string) => void }) {
  const [typed, setTyped] = useState(kept);
  return (
    <form
      className="mt-1 flex max-w-3xl items-start gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed !== kept) onKeep(typed);
      }}
    >
      <label className="min-w-0 flex-1">
        <span className="block text-pencil">{words.remarks}</span>
        <textarea
          rows={2}
          maxLength={4000}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={(event) => event.currentTarget.form?.requestSubmit()}
          className="w-full rounded-sm border border-pencil bg-paper px-2 py-1"
        />
      </label>
      <Button type="submit" className="mt-6" disabled={typed === kept}>
        {words.keepRemarks}
      </Button>
    </form>
  );
}

/** One line to type, and what is done with it. */
function Line({
  label,
  begin = "",
  act,
  onSay,
}: {
  label: string;
  begin?: string;
  act: string;
  onSay: (said: string) => void;
}) {
  const [typed, setTyped] = useState(begin);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSay(typed);
  };
  return (
    <form onSubmit={submit} className="grid gap-3">
      <label>
        <span className="block text-pencil">{label}</span>
        <input
          value={typed}
          autoComplete="off"
          maxLength={120}
          onChange={(event) => setTyped(event.target.value)}
          className="w-full rounded-sm border border-pencil bg-paper px-2 py-1 text-lg"
        />
      </label>
      <div>
        <Button type="submit">{act}</Button>
      </div>
    </form>
  );
}

function Merge({ person }: { person: OnePerson }) {
  const go = useNavigate();
  const records = useQueryClient();
  const people = useQuery({ queryKey: ["people", "all"], queryFn: () => answer(api.GET("/api/people")) });
  const [into, setInto] = useState("");
  const merge = useMutation({
    mutationFn: (other: number) =>
      done(
        api.POST("/api/people/{person_id}/merge", {
          params: { path: { person_id: person.id } },
          body: { into: other },
        }),
      ),
    onSuccess: async (_, other) => {
      await records.invalidateQueries();
      go(`/people/${other}`);
    },
  });
  const others = (people.data ?? []).filter((one) => one.id !== person.id);
  return (
    <div className="grid gap-3">
      <label htmlFor="merge-into" className="text-pencil">
        {words.mergeInto}
      </label>
      <Choose
        id="merge-into"
        value={into}
        choices={[["", "—"], ...others.map((one) => [String(one.id), one.name] as const)]}
        onChoose={setInto}
      />
      <Wrong error={merge.error} />
      <div>
        <Button disabled={!into || merge.isPending} onClick={() => merge.mutate(Number(into))}>
          {words.mergeDo}
        </Button>
      </div>
    </div>
  );
}

function Erase({ person }: { person: OnePerson }) {
  const go = useNavigate();
  const records = useQueryClient();
  const erase = useMutation({
    mutationFn: (name: string) =>
      answer(
        api.POST("/api/people/{person_id}/erase", {
          params: { path: { person_id: person.id } },
          body: { name },
        }),
      ),
    onSuccess: async ({ commissions, still_in: still }) => {
      for (const dress of commissions) {
        forgetDress(dress);
        forget(dress);
        await dropPicture(dress);
      }
      if (still.length === 0) {
        records.clear();
        go("/people");
      }
    },
  });
  if (erase.data) {
    return (
      <p role="alert" className="text-thread">
        {words.erased(person.name)} {words.stillIn(erase.data.still_in.join(", "))}
      </p>
    );
  }
  return (
    <>
      <Line label={words.eraseName(person.name)} act={words.eraseDo} onSay={(name) => erase.mutate(name)} />
      <Wrong error={erase.error} />
    </>
  );
}
