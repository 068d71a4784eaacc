import { text } from "../text";
import { Button } from "../ui/Button";
import { Switcher } from "../ui/Choice";
import { Key } from "../ui/Key";
import { inchMark, singleKeys, walk } from "../ui/preferences";
import { OverSheet } from "../ui/Sheet";

/** Every key and what it does, and how lengths are read. */
export function KeyList({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const on = singleKeys.use() === "on";
  const mark = inchMark.use();
  return (
    <OverSheet title={text.shortcutsTitle} open={open} onOpenChange={onOpenChange}>
      <dl className="grid grid-cols-[5rem_1fr] gap-y-1.5">
        {text.shortcuts.map(([key, does]) => (
          <div key={key} className="contents">
            <dt>
              <Key>{key}</Key>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <div className="mt-4 flex items-center gap-3">
        <span>{text.inchMark}</span>
        <Switcher
          label={text.inchMark}
          value={mark}
          choices={[
            { value: "8", text: text.marks["8"] },
            { value: "16", text: text.marks["16"] },
          ]}
          onChoose={inchMark.write}
        />
      </div>
      <label className="mt-4 flex min-h-8 items-center gap-2">
        <input
          type="checkbox"
          className="size-5"
          checked={on}
          onChange={(event) => singleKeys.write(event.target.checked ? "on" : "off")}
        />
        {text.shortcutsOn}
      </label>
      <Button
        className="mt-4"
        onClick={() => {
          walk.write("going");
          onOpenChange(false);
        }}
      >
        {text.walk.again}
      </Button>
    </OverSheet>
  );
}
