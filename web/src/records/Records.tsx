import { useInfiniteQuery, useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { answer, api, type KeptCopy, upload } from "../api/client";
import { text } from "../text";
import { Button } from "../ui/Button";
import { moment } from "../ui/day";
import { useStudio } from "../ui/studio";
import { Table } from "../ui/Table";
import { Wrong } from "../ui/Wrong";
import { shortName } from "../ui/window";

const words = text.records;
const PAGE = 60;
/** What is said once the page has been loaded anew over other records. */
const SAID = "hem.broughtBack";

/** The records: a backup, the copies that are kept, and what was changed. */
export function Records() {
  const studio = useStudio();
  const leave = useMutation({
    mutationFn: () => fetch("/leave", { method: "POST" }),
    onSuccess: () => window.location.assign("/"),
  });
  const [said] = useState(() => sessionStorage.getItem(SAID));
  useEffect(() => {
    document.title = `${words.title} · ${text.title}`;
    sessionStorage.removeItem(SAID);
  }, []);
  return (
    <main className="mx-auto w-full max-w-5xl flex-1 overflow-auto px-7 py-4">
      <h1 className="font-title text-3xl">{words.title}</h1>
      <p className="mb-3 text-pencil">{words.intro}</p>
      {said && (
        <p role="status" className="mb-3 border-l-[3px] border-ink pl-3">
          {words.done(said)}
        </p>
      )}
      {studio?.has_door && (
        <div className="mb-3 border-l-[3px] border-thread pl-3">
          <p>{words.door}</p>
          {studio.warning && <p className="text-thread">{studio.warning}</p>}
          <Button onClick={() => leave.mutate()}>{words.leave}</Button>
          <Wrong error={leave.error} />
        </div>
      )}
      <Copies />
      <Changes />
    </main>
  );
}

/** Loads the page anew: nothing that was read before is true of other records. */
function begun(keptAs: string) {
  sessionStorage.setItem(SAID, keptAs);
  window.location.assign("/records");
}

function Copies() {
  const copies = useQuery({ queryKey: ["copies"], queryFn: () => answer(api.GET("/api/copies")) });
  const file = useRef<HTMLInputElement>(null);
  const send = useMutation({
    mutationFn: (chosen: File) => upload<{ kept_as: string }>("/api/backup/bring-back", chosen),
    onSuccess: (told) => begun(told.kept_as),
  });
  return (
    <section aria-labelledby="copies" className="mb-6">
      <h2 id="copies" className="font-title text-2xl">
        {words.copies}
      </h2>
      <p className="mb-2 text-pencil">{words.copiesHelp}</p>
      <p className="mb-2 flex flex-wrap items-center gap-4">
        <a href="/api/backup" download className="underline underline-offset-4 hover:bg-lining">
          {words.takeBackup}
        </a>
        <Button disabled={send.isPending} onClick={() => file.current?.click()}>
          {words.bringFileBack}
        </Button>
        <input
          ref={file}
          type="file"
          accept=".sqlite"
          aria-label={words.bringFileBack}
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            event.target.value = "";
            if (chosen) send.mutate(chosen);
          }}
        />
      </p>
      <Wrong error={copies.error ?? send.error} />
      {copies.data?.length === 0 && <p>{words.noCopy}</p>}
      <ul className="border-t border-chalk">
        {copies.data?.map((copy) => (
          <OneCopy key={copy.name} copy={copy} />
        ))}
      </ul>
    </section>
  );
}

function OneCopy({ copy }: { copy: KeptCopy }) {
  const path = { params: { path: { name: copy.name } } };
  const look = useMutation({ mutationFn: () => answer(api.GET("/api/copies/{name}", path)) });
  const back = useMutation({
    mutationFn: () => answer(api.POST("/api/copies/{name}/bring-back", path)),
    onSuccess: (told) => begun(told.kept_as),
  });
  const seen = look.data;
  return (
    <li className="border-b border-chalk py-1.5">
      <div className="grid grid-cols-[12rem_10rem_6rem_1fr] items-center gap-x-4 max-[700px]:grid-cols-2">
        <span>{moment(copy.made_at)}</span>
        <span className="text-pencil">{words.kind[copy.kind]}</span>
        <span className="text-pencil">{words.size(copy.kilobytes)}</span>
        <span>
          {!seen && (
            <Button disabled={look.isPending} onClick={() => look.mutate()}>
              {words.look}
            </Button>
          )}
        </span>
      </div>
      {seen && (
        <div className="mt-1 max-w-2xl">
          <p>
            {seen.last_kept_at
              ? words.holds(seen.people, seen.dresses, moment(seen.last_kept_at))
              : words.holdsNothing}
          </p>
          <p className="mt-1 flex flex-wrap items-center gap-3">
            <Button className="font-semibold" disabled={back.isPending} onClick={() => back.mutate()}>
              {words.bringBack}
            </Button>
            <span className="text-pencil">{words.bringBackHelp}</span>
          </p>
        </div>
      )}
      <Wrong error={look.error ?? back.error} />
    </li>
  );
}

function Changes() {
  const [wanted, setWanted] = useState("");
  const changes = useInfiniteQuery({
    queryKey: ["activity", wanted],
    queryFn: ({ pageParam }) =>
      answer(
        api.GET("/api/activity", { params: { query: { words: wanted, after: pageParam, most: PAGE } } }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => (last.more ? pages.length * PAGE : undefined),
    placeholderData: (before) => before,
  });
  const rows = changes.data?.pages.flatMap((page) => page.rows) ?? [];
  return (
    <section aria-labelledby="changes">
      <h2 id="changes" className="font-title text-2xl">
        {words.changed}
      </h2>
      <label className="my-2 flex items-baseline gap-3">
        <span>{words.find}</span>
        <input
          type="search"
          value={wanted}
          maxLength={120}
          placeholder={words.findHint}
          onChange={(event) => setWanted(event.target.value)}
          className="w-96 max-w-full border-b border-basting bg-paper px-1 py-1"
        />
      </label>
      <Wrong error={changes.error} />
      {changes.data && rows.length === 0 && <p>{wanted ? words.nothingFound : words.nothing}</p>}
      {rows.length > 0 && (
        <div className="overflow-auto">
          <Table heads={[words.when, words.what, words.of, words.window]}>
            {rows.map((row, place) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: two things may be done at one moment
              <tr key={place} className="border-t border-chalk align-baseline">
                <td className="min-w-24 py-0.5 pr-6 tabular-nums min-[701px]:whitespace-nowrap">
                  {moment(row.at)}
                </td>
                <td className="pr-6">{row.what}</td>
                <td className="pr-6">
                  {row.commission && row.title ? (
                    <Link to={`/commission/${row.commission}`} className="hover:underline">
                      {row.title}
                    </Link>
                  ) : (
                    row.title
                  )}
                  {row.title && row.person && ", "}
                  {row.person}
                </td>
                <td className="pr-6 text-pencil">{row.window === shortName() ? words.here : row.window}</td>
              </tr>
            ))}
          </Table>
        </div>
      )}
      {changes.hasNextPage && (
        <Button className="my-2" onClick={() => changes.fetchNextPage()}>
          {words.more}
        </Button>
      )}
    </section>
  );
}
