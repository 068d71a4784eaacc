import { Moon, Sun } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { Link, Outlet, useNavigate } from "react-router";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Switcher } from "../ui/Choice";
import { inchMark, light, singleKeys, useKeys, useLight } from "../ui/preferences";
import { OverSheet } from "../ui/Sheet";

const SumsBench = lazy(() => import("../sums/SumsBench").then((bench) => ({ default: bench.SumsBench })));
const RescueBench = lazy(() =>
  import("../sums/RescueBench").then((bench) => ({ default: bench.RescueBench })),
);

/** What is round every page: the name, the sums bench, the keys and the light. */
export function Frame() {
  const chosen = useLight();
  const [sums, setSums] = useState(false);
  const [rescue, setRescue] = useState(false);
  const [keys, setKeys] = useState(false);
  /** Which benches have been open: they stay where they are, with what was typed there. */
  const [asked, setAsked] = useState({ sums: false, rescue: false });
  const openSums = () => {
    setAsked((now) => ({ ...now, sums: true }));
    setSums(true);
  };
  const openRescue = () => {
    setAsked((now) => ({ ...now, rescue: true }));
    setRescue(true);
  };
  const go = useNavigate();
  useKeys({ s: openSums, r: openRescue, "?": () => setKeys(true), d: () => go("/") });
  return (
    <div className="print-flow flex h-full flex-col">
      <header className="no-print flex items-center gap-4 bg-linen px-5 py-1">
        <Link to="/" className="font-title text-xl italic">
          {text.title}
        </Link>
        <Link to="/" className="min-h-7 px-1 hover:underline">
          {text.desk}
        </Link>
        <div className="ml-auto flex items-center gap-1">
          <Button look="quiet" onClick={openSums}>
            {text.sums} <Key>s</Key>
          </Button>
          <Button look="quiet" onClick={openRescue}>
            {text.rescueOpen} <Key>r</Key>
          </Button>
          <Button look="quiet" onClick={() => setKeys(true)}>
            {text.keys} <Key>?</Key>
          </Button>
          <Button
            look="quiet"
            aria-label={chosen === "day" ? text.light.evening : text.light.day}
            onClick={() => light.write(chosen === "day" ? "evening" : "day")}
          >
            {chosen === "day" ? <Moon size={17} /> : <Sun size={17} />}
          </Button>
        </div>
      </header>
      <Outlet />
      <Suspense>
        {asked.sums && <SumsBench open={sums} onOpenChange={setSums} />}
        {asked.rescue && <RescueBench open={rescue} onOpenChange={setRescue} />}
      </Suspense>
      <KeyList open={keys} onOpenChange={setKeys} />
    </div>
  );
}

function Key({ children }: { children: string }) {
  return (
    <kbd className="ml-1 rounded-sm border border-chalk px-1.5 font-body text-sm text-pencil">{children}</kbd>
  );
}

function KeyList({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
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
    </OverSheet>
  );
}
