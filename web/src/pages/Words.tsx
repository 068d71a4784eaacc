import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api } from "../api/client";
import { text } from "../text";
import { TermText } from "../ui/Meaning";

/** The words of the trade, with their doubles: found by either. */
export function Words() {
  const words = useQuery({
    queryKey: ["words"],
    queryFn: () => answer(api.GET("/api/words")),
    staleTime: Infinity,
  });
  const [wanted, setWanted] = useState("");
  useEffect(() => {
    document.title = `${text.words.title} · ${text.title}`;
  }, []);
  const said = wanted.toLowerCase().trim();
  const found = words.data?.filter((term) =>
    [term.name, ...term.also, term.means].some((one) => one.toLowerCase().includes(said)),
  );
  return (
    <main className="flex-1 overflow-auto px-7 py-4">
      <div className="mb-4 flex flex-wrap items-baseline gap-x-6 gap-y-2">
        <h1 className="font-title text-3xl">{text.words.title}</h1>
        <label className="flex items-baseline gap-3">
          <span className="text-lg">{text.find}</span>
          <input
            type="search"
            value={wanted}
            placeholder={text.words.hint}
            onChange={(event) => setWanted(event.target.value)}
            className="w-72 max-w-full border-b border-basting bg-paper px-1 py-1"
          />
        </label>
      </div>
      {words.isError && <p role="alert">{text.lost}</p>}
      {found?.length === 0 && <p className="text-xl">{text.words.none}</p>}
      <dl className="grid grid-cols-[repeat(auto-fill,minmax(21rem,1fr))] gap-x-8 gap-y-5">
        {found?.map((term) => (
          <div key={term.name}>
            <dt className="mb-0.5 font-title text-xl">{term.name}</dt>
            <dd>
              <TermText term={term} />
            </dd>
          </div>
        ))}
      </dl>
    </main>
  );
}
