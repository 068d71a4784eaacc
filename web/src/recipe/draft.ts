import type { Recipe, Unit } from "../api/client";
import { windowName } from "../ui/window";

/** A word as it was typed and not yet read, with the unit a bare number in it was meant in. */
export interface Typed {
  path: string;
  value: unknown;
  unit: Unit;
}

/** What is worked on: the last recipe that could be read, and what has been typed over it since. */
export interface Work {
  recipe: Recipe;
  typed: Typed[];
}

/** Work kept in this browser until it is saved, and the version it began from. */
export interface Draft extends Work {
  from: number;
  at: string;
}

export type Changes = Record<string, unknown>;

/** The work with more typed over it. What was typed at a word before, or below it, is typed over. */
export function typedOver(work: Work, changes: Changes, unit: Unit): Work {
  const paths = Object.keys(changes);
  const covered = (path: string) => paths.some((one) => path === one || path.startsWith(`${one}.`));
  return {
    recipe: work.recipe,
    typed: [
      ...work.typed.filter((word) => !covered(word.path)),
      ...paths.map((path) => ({ path, value: changes[path], unit })),
    ],
  };
}

/** The recipe as it looks with everything typed in its place; text stays text until it is read. */
export function asTyped({ recipe, typed }: Work): Recipe {
  const next = structuredClone(recipe);
  for (const { path, value } of typed) {
    const keys = path.split(".");
    const last = keys.pop() as string;
    let at: Record<string, unknown> | undefined = next;
    for (const key of keys) at = at?.[key] as Record<string, unknown> | undefined;
    if (typeof at !== "object" || at === null) continue;
    if (value === null && /^figure\.(measures|second|rules)\./.test(path)) delete at[last];
    else at[last] = value;
  }
  return next;
}

const KEPT = "hem.work.";
const ASIDE = "hem.aside.";
/** A draft of another window that has not been touched for this long belongs to nobody who is typing. */
const LEFT_BEHIND = 5000;

const ownKey = (id: number) => `${KEPT}${id}.${windowName()}`;

export function keepDraft(id: number, draft: Draft) {
  localStorage.setItem(ownKey(id), JSON.stringify(draft));
}

export function dropDraft(id: number) {
  localStorage.removeItem(ownKey(id));
}

/** Put a draft out of the way without losing it. */
export function setAside(id: number, text: string) {
  localStorage.setItem(`${ASIDE}${id}`, text);
}

function read(text: string | null): Draft | null {
  if (text === null) return null;
  const draft = JSON.parse(text) as Draft;
  const whole =
    typeof draft.from === "number" &&
    typeof draft.at === "string" &&
    typeof draft.recipe === "object" &&
    draft.recipe !== null &&
    Array.isArray(draft.typed) &&
    draft.typed.every((word) => typeof word.path === "string" && (word.unit === "cm" || word.unit === "in"));
  if (!whole) throw new Error("not a draft");
  return draft;
}

export interface FoundDraft {
  draft: Draft | null;
  key: string;
  /** A damaged one was found, and has been put aside. */
  damaged: boolean;
}

/**
 * The draft of a commission that this browser still holds: this window's own, or one left behind by another. One that
 * did not begin from the newest version is moved out of the way of the work that now begins.
 */
export function findDraft(id: number, newest: number): FoundDraft {
  const left = `${KEPT}${id}.left`;
  const others = Object.keys(localStorage).filter((key) => key.startsWith(`${KEPT}${id}.`));
  let damaged = false;
  for (const key of [ownKey(id), ...others.filter((key) => key !== ownKey(id))]) {
    const text = localStorage.getItem(key);
    try {
      const draft = read(text);
      if (!draft) continue;
      const mine = key === ownKey(id);
      if (!mine && key !== left && Date.now() - new Date(draft.at).getTime() < LEFT_BEHIND) continue;
      if (mine && draft.from === newest) return { draft, key, damaged };
      localStorage.setItem(left, text as string);
      if (key !== left) localStorage.removeItem(key);
      return { draft, key: left, damaged };
    } catch {
      setAside(id, text ?? "");
      localStorage.removeItem(key);
      damaged = true;
    }
  }
  return { draft: null, key: "", damaged };
}

/** Take a draft found under a key out of the drafts. */
export function takeAway(key: string) {
  localStorage.removeItem(key);
}

/** Everything this browser holds of a dress that is no more. */
export function forgetDress(id: number) {
  for (const key of Object.keys(localStorage)) {
    if (key.startsWith(`${KEPT}${id}.`) || key === `${ASIDE}${id}`) localStorage.removeItem(key);
  }
}
