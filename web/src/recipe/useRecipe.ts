import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { answer, api, type Difference, type Problem, type Recipe, Refused, type Screen } from "../api/client";
import { readingOf } from "../ui/preferences";
import {
  asTyped,
  type Changes,
  type Draft,
  dropDraft,
  findDraft,
  keepDraft,
  setAside,
  takeAway,
  typedOver,
  type Work,
} from "./draft";

/** What is typed in one go is asked about once; the first of it at once. */
const READ_PAUSE = 20;
const IN_ONE_GO = 150;
const SAVE_PAUSE = 500;
const TRY_AGAIN = 1500;
const SAME_THOUGHT = 900;

/** How what is worked on stands to what is kept. "saved" is only ever said of what was just acknowledged. */
export type Saving =
  | { state: "saved" }
  | { state: "saving" }
  /** The program does not answer, or says in `why` what keeps it from keeping; it is tried again by itself. */
  | { state: "lost"; why: string }
  /** Another window has saved since: theirs and mine are both kept until one is chosen. */
  | { state: "stale"; theirs: Theirs };

export interface Theirs {
  version: number;
  saved_at: string;
  recipe: Recipe;
  differences: Difference[];
}

/** A draft this browser still held, beside a newer state. */
export interface Offer {
  draft: Draft;
  key: string;
  differences: Difference[];
}

const lostIn = (error: unknown) => (error instanceof Refused ? error.message : "");

/**
 * A commission's recipe while it is worked on. What is typed is sent as it was typed, with its unit, and settled when
 * the core has read it; what cannot be read stays as it was typed and keeps nothing else from being saved.
 */
export function useRecipe(id: number, opened: { recipe: Recipe; version: number; saved_at: string }) {
  const [found] = useState(() => findDraft(id, opened.version));
  const follows = found.draft !== null && found.draft.from === opened.version;
  const [work, setWork] = useState<Work>(() =>
    follows && found.draft
      ? { recipe: found.draft.recipe, typed: found.draft.typed }
      : { recipe: opened.recipe, typed: [] },
  );
  const [kept, setKept] = useState({
    version: opened.version,
    at: opened.saved_at,
    recipe: JSON.stringify(opened.recipe),
  });
  const [screen, setScreen] = useState<Screen | null>(null);
  const [problems, setProblems] = useState<Problem["errors"]>([]);
  const [notDrawn, setNotDrawn] = useState("");
  const [saving, setSaving] = useState<Saving>({ state: "saved" });
  const [past, setPast] = useState<Work[]>([]);
  const [future, setFuture] = useState<Work[]>([]);
  const [offer, setOffer] = useState<Offer | null>(null);
  const [damaged, setDamaged] = useState(found.damaged);
  const [beat, setBeat] = useState(0);
  const lastChange = useRef({ paths: "", at: 0 });
  /** The work whose answer is in, so that settling it does not ask again. */
  const answered = useRef<Work | null>(null);
  /** When the core was last asked. */
  const askedAt = useRef(0);
  /** The newest version this window knows, and the save before: saves never overtake one another. */
  const newest = useRef(opened.version);
  const before = useRef<Promise<unknown>>(Promise.resolve());
  const draft = useMemo(() => asTyped(work), [work]);
  const unit = draft.unit === "in" ? "in" : "cm";

  const settled = work === answered.current;
  const isKept = settled && JSON.stringify(work.recipe) === kept.recipe;

  // A draft that began from an older state than the newest is offered beside it, never put in its place.
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at once, when the commission is opened
  useEffect(() => {
    const left = found.draft;
    if (!left || follows) return;
    const compare = async () => {
      const read = await answer(
        api.POST("/api/bench", { body: { recipe: left.recipe, typed: left.typed as never } }),
      );
      const differences = await answer(
        api.POST("/api/differences", {
          params: { query: readingOf(unit) },
          body: { before: opened.recipe, after: read.recipe },
        }),
      );
      if (differences.length || read.refused.length) setOffer({ draft: left, key: found.key, differences });
      else takeAway(found.key);
    };
    compare().catch(() => {
      setAside(id, JSON.stringify(left));
      takeAway(found.key);
      setDamaged(true);
    });
  }, []);

  // What is not kept yet lies in this browser.
  useEffect(() => {
    if (isKept && work.typed.length === 0) dropDraft(id);
    else keepDraft(id, { ...work, from: kept.version, at: new Date().toISOString() });
  }, [work, isKept, kept.version, id]);

  // Read and made up on every change; the latest wins. Sent again by itself while the program is away.
  // biome-ignore lint/correctness/useExhaustiveDependencies: `beat` is what tries again
  useEffect(() => {
    if (work === answered.current) return;
    const stop = new AbortController();
    let again: ReturnType<typeof setTimeout>;
    const pause = performance.now() - askedAt.current < IN_ONE_GO ? READ_PAUSE : 0;
    const timer = setTimeout(async () => {
      askedAt.current = performance.now();
      try {
        const made = await answer(
          api.POST("/api/bench", {
            params: { query: readingOf() },
            body: work as never,
            signal: stop.signal,
          }),
        );
        if (stop.signal.aborted) return;
        settle(made.recipe, made.refused);
        setScreen(made.screen as Screen);
        setNotDrawn("");
        setSaving((now) => (now.state === "lost" ? { state: "saving" } : now));
      } catch (error) {
        if (stop.signal.aborted) return;
        if (error instanceof Refused && error.status >= 500 && error.status !== 503) {
          setNotDrawn(error.message);
          await keepUndrawn(stop.signal);
        } else {
          setSaving({ state: "lost", why: lostIn(error) });
          again = setTimeout(() => setBeat((now) => now + 1), TRY_AGAIN);
        }
      }
    }, pause);
    return () => {
      clearTimeout(timer);
      clearTimeout(again);
      stop.abort();
    };

    /** What has been read takes the place of what was typed; what has not stays as it was typed. */
    function settle(recipe: Recipe, refused: { path: string; text: string }[]) {
      const left = new Set(refused.map((refusal) => refusal.path));
      const now = { recipe, typed: work.typed.filter((word) => left.has(word.path)) };
      answered.current = now;
      // an older recipe read by a newer program says more words, and that is no change of the maker's
      if (work.recipe === opened.recipe && work.typed.length === 0) {
        setKept((last) => ({ ...last, recipe: JSON.stringify(recipe) }));
      }
      setProblems(refused.map((refusal) => ({ field: refusal.path, text: refusal.text })));
      // a change made since, and not seen here yet, stands: only what was asked about is settled
      setWork((one) => (one === work ? now : one));
    }

    /** What cannot be drawn is kept all the same, sent on as it was typed. */
    async function keepUndrawn(signal: AbortSignal) {
      try {
        const saved = await save(work, () => signal.aborted);
        if (signal.aborted || !saved) return;
        settle(saved.recipe, saved.refused);
      } catch (error) {
        if (signal.aborted) return;
        setSaving(stalled(error));
        again = setTimeout(() => setBeat((now) => now + 1), TRY_AGAIN);
      }
    }
  }, [work, beat]);

  // Saved once it is read, and tried again while it cannot be kept.
  // biome-ignore lint/correctness/useExhaustiveDependencies: `beat` is what tries again
  useEffect(() => {
    if (!settled || saving.state === "stale") return;
    const body = JSON.stringify(work.recipe);
    if (body === kept.recipe) {
      setSaving({ state: "saved" });
      return;
    }
    let stopped = false;
    let timer: ReturnType<typeof setTimeout>;
    setSaving((now) => (now.state === "lost" ? now : { state: "saving" }));
    const keep = async () => {
      try {
        const saved = await save({ recipe: work.recipe, typed: [] }, () => stopped);
        if (saved && !stopped) setSaving({ state: "saved" });
      } catch (error) {
        if (stopped) return;
        const now = stalled(error);
        setSaving(now);
        if (now.state === "lost") timer = setTimeout(() => setBeat((count) => count + 1), TRY_AGAIN);
      }
    };
    timer = setTimeout(keep, SAVE_PAUSE);
    return () => {
      stopped = true;
      clearTimeout(timer);
    };
  }, [work, settled, kept, saving.state === "stale", beat, id]);

  /** Keep a state, after the save before it has come through; nothing when it is no longer wanted by then. */
  function save(state: Work, unwanted: () => boolean) {
    const mine = before.current
      .catch(() => undefined)
      .then(async () => {
        if (unwanted()) return null;
        const saved = await answer(
          api.POST("/api/commissions/{commission_id}/versions", {
            params: { path: { commission_id: id }, query: readingOf(unit) },
            body: { ...state, from_version: newest.current } as never,
          }),
        );
        newest.current = saved.version;
        setKept({ version: saved.version, at: saved.saved_at, recipe: JSON.stringify(saved.recipe) });
        return saved;
      });
    before.current = mine;
    return mine;
  }

  const step = useCallback(
    (next: Work) => {
      setPast((steps) => [...steps.slice(-199), work]);
      setFuture([]);
      setWork(next);
    },
    [work],
  );

  const change = useCallback(
    (changes: Changes) => {
      const paths = Object.keys(changes).join();
      const now = Date.now();
      const typing = Object.values(changes).every((value) => typeof value !== "object" || value === null);
      const sameThought =
        typing && lastChange.current.paths === paths && now - lastChange.current.at < SAME_THOUGHT;
      lastChange.current = { paths, at: now };
      if (!sameThought) setPast((steps) => [...steps.slice(-199), work]);
      setFuture([]);
      setWork((one) => typedOver(one, changes, unit));
    },
    [work, unit],
  );

  const undo = useCallback(() => {
    const before = past.at(-1);
    if (!before) return;
    lastChange.current = { paths: "", at: 0 };
    setPast(past.slice(0, -1));
    setFuture([work, ...future]);
    setWork({ ...before });
  }, [past, future, work]);

  const redo = useCallback(() => {
    const [after, ...rest] = future;
    if (!after) return;
    setFuture(rest);
    setPast([...past, work]);
    setWork({ ...after });
  }, [past, future, work]);

  /** What the recipe would make with some words changed, without changing them. */
  const preview = useCallback(
    async (changes: Changes) => {
      const body = typedOver(work, changes, unit) as never;
      return (await answer(api.POST("/api/bench", { params: { query: readingOf() }, body })))
        .screen as Screen;
    },
    [work, unit],
  );

  /** Another whole state in the place of this one, as one step that can be undone. */
  const replace = useCallback((recipe: Recipe) => step({ recipe, typed: [] }), [step]);

  /** What is saved from now on stands on the version the other window saved. */
  const goOnFrom = useCallback((theirs: Theirs) => {
    newest.current = theirs.version;
    setKept({ version: theirs.version, at: theirs.saved_at, recipe: JSON.stringify(theirs.recipe) });
    setSaving({ state: "saving" });
  }, []);

  /** Mine becomes the newest; theirs stays the version before it. */
  const keepMine = useCallback(() => {
    if (saving.state !== "stale") return;
    goOnFrom(saving.theirs);
  }, [saving, goOnFrom]);

  /** Theirs takes the place of mine, which is put aside in this browser and can be undone to. */
  const takeTheirs = useCallback(() => {
    if (saving.state !== "stale") return;
    setAside(id, JSON.stringify({ ...work, from: kept.version, at: new Date().toISOString() }));
    goOnFrom(saving.theirs);
    replace(saving.theirs.recipe);
  }, [saving, work, kept.version, id, replace, goOnFrom]);

  /** The draft that was left behind takes the place of what is here, as one step that can be undone. */
  const takeOffer = useCallback(() => {
    if (!offer) return;
    takeAway(offer.key);
    setOffer(null);
    step({ recipe: offer.draft.recipe, typed: offer.draft.typed });
  }, [offer, step]);

  const refuseOffer = useCallback(() => {
    if (!offer) return;
    setAside(id, JSON.stringify(offer.draft));
    takeAway(offer.key);
    setOffer(null);
  }, [offer, id]);

  return {
    preview,
    draft,
    typed: work.typed,
    screen,
    problems,
    notDrawn,
    saving,
    kept,
    /** Whether everything on the bench that can be read is in the newest kept version. */
    isReadKept: isKept && saving.state === "saved",
    /** Whether everything on the bench is in the newest kept version. */
    isKept: isKept && saving.state === "saved" && work.typed.length === 0,
    unit: unit as "cm" | "in",
    change,
    replace,
    undo,
    redo,
    keepMine,
    takeTheirs,
    offer,
    takeOffer,
    refuseOffer,
    damaged,
    forgetDamaged: () => setDamaged(false),
    canUndo: past.length > 0,
    canRedo: future.length > 0,
  };
}

/** Why a save did not come through. */
function stalled(error: unknown): Saving {
  if (error instanceof Refused && error.status === 409) {
    return { state: "stale", theirs: error.problem as unknown as Theirs };
  }
  return { state: "lost", why: lostIn(error) };
}

export type Bench = ReturnType<typeof useRecipe>;
