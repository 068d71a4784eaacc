import { Moon, Sun } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { matchPath, NavLink, Outlet, useMatch, useNavigate } from "react-router";
import { text } from "../text";
import { Button } from "../ui/Button";
import { Key } from "../ui/Key";
import { light, useKeys, useLight } from "../ui/preferences";
import { lastBefore } from "../ui/recent";

const SumsBench = lazy(() => import("../sums/SumsBench").then((bench) => ({ default: bench.SumsBench })));
const RescueBench = lazy(() =>
  import("../sums/RescueBench").then((bench) => ({ default: bench.RescueBench })),
);

const KeyList = lazy(() => import("./KeyList").then((list) => ({ default: list.KeyList })));

const BENCH = "/commission/:id";

/** What is round every page: the name, the sums bench, the keys and the light. */
export function Frame() {
  const chosen = useLight();
  const [sums, setSums] = useState(false);
  const [rescue, setRescue] = useState(false);
  const [keys, setKeys] = useState(false);
  /** Which benches have been open: they stay where they are, with what was typed there. */
  const [asked, setAsked] = useState({ sums: false, rescue: false, keys: false });
  const openSums = () => {
    setAsked((now) => ({ ...now, sums: true }));
    setSums(true);
  };
  const openRescue = () => {
    setAsked((now) => ({ ...now, rescue: true }));
    setRescue(true);
  };
  const openKeys = () => {
    setAsked((now) => ({ ...now, keys: true }));
    setKeys(true);
  };
  const go = useNavigate();
  const onBench = useMatch(BENCH) !== null;
  const goToLast = () => {
    // the address is ahead of what is drawn: one key may follow another before the page has changed
    const here = matchPath(BENCH, window.location.pathname);
    const last = lastBefore(here ? Number(here.params.id) : null);
    if (last !== null) go(`/commission/${last}`);
  };
  useKeys({
    s: openSums,
    r: openRescue,
    "?": openKeys,
    d: () => go("/"),
    o: goToLast,
    g: () => go("/words"),
    k: () => go("/calendar"),
  });
  /** Where a page puts what it has to say in the head. */
  const [head, setHead] = useState<HTMLElement | null>(null);
  return (
    <div className="print-flow flex h-full flex-col">
      <header
        className={`print-flow flex min-h-12 flex-wrap items-center gap-x-4 bg-paper px-5 py-1 max-[820px]:px-3 ${onBench ? "border-b border-chalk" : ""}`}
      >
        {!onBench && (
          <NavLink to="/" className="no-print font-title text-2xl italic">
            {text.title}
          </NavLink>
        )}
        <NavLink to="/" end className={({ isActive }) => `no-print ${HEAD_LINK} ${isActive ? HERE : ""}`}>
          {text.desk}
        </NavLink>
        {!onBench && (
          <NavLink
            to="/calendar"
            className={({ isActive }) => `no-print ${HEAD_LINK} ${isActive ? HERE : ""}`}
          >
            {text.days.title}
          </NavLink>
        )}
        {!onBench && (
          <NavLink to="/people" className={({ isActive }) => `no-print ${HEAD_LINK} ${isActive ? HERE : ""}`}>
            {text.people.title}
          </NavLink>
        )}
        {!onBench && (
          <NavLink to="/cloths" className={({ isActive }) => `no-print ${HEAD_LINK} ${isActive ? HERE : ""}`}>
            {text.shelf.title}
          </NavLink>
        )}
        {!onBench && (
          <NavLink
            to="/records"
            className={({ isActive }) => `no-print ${HEAD_LINK} ${isActive ? HERE : ""}`}
          >
            {text.records.title}
          </NavLink>
        )}
        {!onBench && (
          <NavLink to="/words" className={({ isActive }) => `no-print ${HEAD_LINK} ${isActive ? HERE : ""}`}>
            {text.words.link}
          </NavLink>
        )}
        {!onBench && (
          <NavLink
            to="/practice"
            className={({ isActive }) => `no-print ${HEAD_LINK} ${isActive ? HERE : ""}`}
          >
            {text.practice.title}
          </NavLink>
        )}
        <div ref={setHead} className="contents" />
        <div className={`no-print flex items-center ${onBench ? "" : "ml-auto"}`}>
          <Button look="quiet" onClick={openSums}>
            {text.sums}{" "}
            <span className="max-[1180px]:hidden">
              <Key>s</Key>
            </span>
          </Button>
          <Button look="quiet" onClick={openRescue}>
            {text.rescueOpen}{" "}
            <span className="max-[1180px]:hidden">
              <Key>r</Key>
            </span>
          </Button>
          <Button look="quiet" onClick={openKeys}>
            {text.keys}{" "}
            <span className="max-[1180px]:hidden">
              <Key>?</Key>
            </span>
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
      <Outlet context={head} />
      <Suspense>
        {asked.sums && <SumsBench open={sums} onOpenChange={setSums} />}
        {asked.rescue && <RescueBench open={rescue} onOpenChange={setRescue} />}
        {asked.keys && <KeyList open={keys} onOpenChange={setKeys} />}
      </Suspense>
    </div>
  );
}

const HEAD_LINK = "flex min-h-7 items-center px-0.5 hover:underline";
const HERE = "border-b-2 border-ink font-semibold";
