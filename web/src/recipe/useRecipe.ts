import { useCallback, useEffect, useRef, useState } from "react";
import { answer, api, type Problem, type Recipe, Refused, type Saved, type Screen } from "../api/client";

const MAKE_UP_PAUSE = 20;
const SAVE_PAUSE = 500;
const TRY_AGAIN = 3000;
const SAME_THOUGHT = 900;

export type Saving =
  | { state: "saved"; at: string }
  | { state: "saving" }
  | { state: "waiting" }
  | { state: "lost" };

type Changes = Record<string, unknown>;

/** The recipe with some of its words changed; paths are dotted. */
function withChanges(recipe: Recipe, changes: Changes): Recipe {
  const next = structuredClone(recipe);
  for (const [path, value] of Object.entries(changes)) {
    const keys = path.split(".");
    const last = keys.pop() as string;
    let at: Record<string, unknown> = next;
    for (const key of keys) {
      if (at[key] === undefined) at[key] = {};
      at = at[key] as Record<string, unknown>;
    }
    if (value === null && /^figure\.(measures|second|rules)\./.test(path)) delete at[last];
    else at[last] = value;
  }
  return next;
}

const keptHere = (id: number) => `hem.unsaved.${id}`;

/**
 * A commission's recipe while it is worked on: every change is made up by the core at once, saved
 * when it can be read, and kept in the browser until the save is acknowledged.
 */
export function useRecipe(id: number, opened: Recipe, savedAt: string) {
  const rescued = localStorage.getItem(keptHere(id));
  const [draft, setDraft] = useState<Recipe>(() => (rescued ? JSON.parse(rescued) : opened));
  const [screen, setScreen] = useState<Screen | null>(null);
  const [problems, setProblems] = useState<Problem["errors"]>([]);
  const [saving, setSaving] = useState<Saving>({ state: "saved", at: savedAt });
  const [past, setPast] = useState<Recipe[]>([]);
  const [future, setFuture] = useState<Recipe[]>([]);
  const lastChange = useRef({ paths: "", at: 0 });
  const lastSaved = useRef(JSON.stringify(opened));

  // Made up on every change; the latest wins.
  useEffect(() => {
    const stop = new AbortController();
    const unit = (draft.unit as "cm" | "in") ?? "cm";
    const timer = setTimeout(async () => {
      try {
        const made = (await answer(
          api.POST("/api/make-up", { body: draft, params: { query: { unit } }, signal: stop.signal }),
        )) as Screen;
        if (stop.signal.aborted) return;
        setScreen(made);
        setProblems([]);
      } catch (error) {
        if (stop.signal.aborted) return;
        if (error instanceof Refused) {
          setProblems(error.problem.errors);
          setSaving({ state: "waiting" });
        } else setSaving({ state: "lost" });
      }
    }, MAKE_UP_PAUSE);
    localStorage.setItem(keptHere(id), JSON.stringify(draft));
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [draft, id]);

  // Saved once it is made up, and tried again while the program does not answer.
  const made = screen?.recipe;
  useEffect(() => {
    if (!made || problems.length) return;
    const body = JSON.stringify(made);
    if (body === lastSaved.current) {
      setSaving((now) => (now.state === "saved" ? now : { state: "saved", at: new Date().toISOString() }));
      localStorage.removeItem(keptHere(id));
      return;
    }
    let stopped = false;
    let timer: ReturnType<typeof setTimeout>;
    const save = async () => {
      setSaving({ state: "saving" });
      try {
        const saved: Saved = await answer(
          api.POST("/api/commissions/{commission_id}/versions", {
            params: { path: { commission_id: id } },
            body: made as Recipe,
          }),
        );
        if (stopped) return;
        lastSaved.current = body;
        localStorage.removeItem(keptHere(id));
        setSaving({ state: "saved", at: saved.saved_at });
      } catch {
        if (stopped) return;
        setSaving({ state: "lost" });
        timer = setTimeout(save, TRY_AGAIN);
      }
    };
    timer = setTimeout(save, SAVE_PAUSE);
    return () => {
      stopped = true;
      clearTimeout(timer);
    };
  }, [made, problems, id]);

  const change = useCallback(
    (changes: Changes) => {
      const paths = Object.keys(changes).join();
      const now = Date.now();
      const typing = Object.values(changes).every((value) => typeof value !== "object" || value === null);
      const sameThought =
        typing && lastChange.current.paths === paths && now - lastChange.current.at < SAME_THOUGHT;
      lastChange.current = { paths, at: now };
      if (!sameThought) setPast((steps) => [...steps.slice(-199), draft]);
      setFuture([]);
      setDraft((recipe) => withChanges(recipe, changes));
    },
    [draft],
  );

  const undo = useCallback(() => {
    const before = past.at(-1);
    if (!before) return;
    lastChange.current = { paths: "", at: 0 };
    setPast(past.slice(0, -1));
    setFuture([draft, ...future]);
    setDraft(before);
  }, [past, future, draft]);

  const redo = useCallback(() => {
    const [after, ...rest] = future;
    if (!after) return;
    setFuture(rest);
    setPast([...past, draft]);
    setDraft(after);
  }, [past, future, draft]);

  /** What the recipe would make with some words changed, without changing them. */
  const preview = useCallback(
    async (changes: Changes) => {
      const unit = (draft.unit as "cm" | "in") ?? "cm";
      const body = withChanges(draft, changes);
      return (await answer(api.POST("/api/make-up", { body, params: { query: { unit } } }))) as Screen;
    },
    [draft],
  );

  return {
    preview,
    draft,
    screen,
    problems,
    saving,
    change,
    undo,
    redo,
    canUndo: past.length > 0,
    canRedo: future.length > 0,
  };
}

export type Bench = ReturnType<typeof useRecipe>;
