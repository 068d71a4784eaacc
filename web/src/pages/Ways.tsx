import { useQueryClient } from "@tanstack/react-query";
import { MoreHorizontal } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { answer, api, type DeskRow } from "../api/client";
import { text } from "../text";
import { DOTS } from "./Desk";
import { SaidOf } from "./SaidOf";

/** What can be done with a dress on the desk. */
export function Ways({ row }: { row: DeskRow }) {
  const [saying, setSaying] = useState(false);
  const [trouble, setTrouble] = useState("");
  const desk = useQueryClient();
  const then = async (done: Promise<unknown>) => {
    try {
      await done;
      setTrouble("");
      await desk.invalidateQueries({ queryKey: ["desk"] });
    } catch (error) {
      setTrouble(error instanceof Error && error.message ? error.message : text.lost);
    }
  };
  const path = { params: { path: { commission_id: row.id } } };
  const ways = [
    { said: text.ways.sayAnew, does: () => setSaying(true) },
    {
      said: text.ways.copy,
      does: () =>
        then(
          answer(
            api.POST("/api/commissions/{commission_id}/copies", {
              ...path,
              body: { title: text.ways.copyOf(row.title) },
            }),
          ),
        ),
    },
    {
      said: row.put_away ? text.ways.bringBack : text.ways.putAway,
      does: () =>
        then(
          answer(
            api.PATCH("/api/commissions/{commission_id}", { ...path, body: { put_away: !row.put_away } }),
          ),
        ),
    },
  ];
  return (
    <>
      <DropdownMenu.Root defaultOpen>
        <DropdownMenu.Trigger asChild>
          <button type="button" aria-label={text.ways.of(row.title)} className={DOTS}>
            <MoreHorizontal size={18} aria-hidden />
          </button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            className="rounded-sm border border-chalk bg-paper py-1 shadow-lg"
          >
            {ways.map((way) => (
              <DropdownMenu.Item
                key={way.said}
                onSelect={way.does}
                className="min-h-8 cursor-pointer px-3 py-1 outline-none data-[highlighted]:bg-lining"
              >
                {way.said}
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {trouble && (
        <p role="alert" className="px-2 text-sm text-thread">
          {trouble}
        </p>
      )}
      <SaidOf row={row} open={saying} onOpenChange={setSaying} />
    </>
  );
}
