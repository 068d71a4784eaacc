import { type ReactNode, useId } from "react";
import { text } from "../text";
import { Choose } from "../ui/Choose";
import { Folded } from "../ui/Folded";
import { Tick } from "../ui/Tick";

export interface Printing {
  paper: (typeof text.printing.papers)[number][0];
  sheet: string;
  scale: string;
  joins: string;
  lines: string;
  words: boolean;
  opened: boolean;
  /** Which pieces; none: all. */
  pieces: string[];
  /** Which other version is printed beside it; nothing: none. */
  beside: string;
}

export const AS_USUAL: Printing = {
  paper: "",
  sheet: "",
  scale: "1",
  joins: "overlap",
  lines: "both",
  words: true,
  opened: false,
  pieces: [],
  beside: "",
};

/** How a file is asked for: on which paper, which version. */
export function query(printing: Printing, paper: string, version: number, unit: unknown): string {
  const { pieces, paper: other, sheet, words, opened, beside, ...rest } = printing;
  const said = new URLSearchParams({
    ...rest,
    paper: other || paper,
    words: String(words),
    opened: String(opened),
    version: String(version),
    ...(beside && beside !== String(version) && { beside }),
    ...(sheet.trim() && { sheet, unit: String(unit) }),
  });
  for (const piece of pieces) said.append("piece", piece);
  return said.toString();
}

/** Other papers, trials at half and quarter size, joins, lines, and which pieces. */
export function PrintingChoices({
  pieces,
  versions,
  chosen,
  onChoose,
}: {
  pieces: string[];
  /** How many versions there are. */
  versions: number;
  chosen: Printing;
  onChoose: (printing: Printing) => void;
}) {
  const set = (change: Partial<Printing>) => onChoose({ ...chosen, ...change });
  const words = text.printing;
  return (
    <Folded title={words.more} className="no-print mb-2">
      {() => (
        <div className="grid gap-1.5 py-1 pl-4">
          <ChooseRow
            label={words.paper}
            value={chosen.paper}
            choices={words.papers}
            onChoose={(paper) => set({ paper: paper as Printing["paper"] })}
          />
          <Row label={words.sheet}>
            {(id) => (
              <input
                id={id}
                value={chosen.sheet}
                placeholder={words.sheetHint}
                onChange={(event) => set({ sheet: event.target.value })}
                className="w-36 rounded-sm border border-pencil bg-paper px-2 py-0.5"
              />
            )}
          </Row>
          <ChooseRow
            label={words.scale}
            value={chosen.scale}
            choices={words.scales}
            onChoose={(scale) => set({ scale })}
          />
          <ChooseRow
            label={words.joins}
            value={chosen.joins}
            choices={words.joinings}
            onChoose={(joins) => set({ joins })}
          />
          <ChooseRow
            label={words.lines}
            value={chosen.lines}
            choices={words.linesOf}
            onChoose={(lines) => set({ lines })}
          />
          {versions > 1 && (
            <ChooseRow
              label={words.beside}
              value={chosen.beside}
              choices={[
                ["", words.besideNone],
                ...Array.from(
                  { length: versions - 1 },
                  (_, k) => [String(versions - 1 - k), words.version(versions - 1 - k)] as const,
                ),
              ]}
              onChoose={(beside) => set({ beside })}
            />
          )}
          <Tick on={chosen.words} onTick={(on) => set({ words: on })}>
            {words.words}
          </Tick>
          <Tick on={chosen.opened} onTick={(opened) => set({ opened })}>
            {words.opened}
          </Tick>
          <fieldset>
            <legend className="text-pencil">{words.pieces}</legend>
            {pieces.map((name) => (
              <Tick
                key={name}
                on={chosen.pieces.includes(name)}
                onTick={(on) =>
                  set({ pieces: on ? [...chosen.pieces, name] : chosen.pieces.filter((one) => one !== name) })
                }
              >
                {name}
              </Tick>
            ))}
          </fieldset>
        </div>
      )}
    </Folded>
  );
}

function Row({ label, children }: { label: string; children: (id: string) => ReactNode }) {
  const id = useId();
  return (
    <div className="flex items-center justify-between gap-3">
      <label htmlFor={id}>{label}</label>
      {children(id)}
    </div>
  );
}

function ChooseRow({ label, ...rest }: { label: string } & Omit<Parameters<typeof Choose>[0], "id">) {
  return <Row label={label}>{(id) => <Choose id={id} {...rest} />}</Row>;
}
