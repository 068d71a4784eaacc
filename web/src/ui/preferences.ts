import { useEffect, useState, useSyncExternalStore } from "react";

/** A choice kept in this browser. */
function kept<T extends string>(key: string, usual: T) {
  const listeners = new Set<() => void>();
  const read = () => (localStorage.getItem(key) as T | null) ?? usual;
  const write = (value: T) => {
    localStorage.setItem(key, value);
    for (const tell of listeners) tell();
  };
  const use = () =>
    useSyncExternalStore((tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    }, read);
  /** Whether nothing has been chosen yet. */
  const isUsual = () => localStorage.getItem(key) === null;
  return { read, write, use, isUsual };
}

export const light = kept<"day" | "evening">("hem.light", "day");
/** Inches where they are what people measure in, until something else is chosen. */
export const preferredUnit = kept<"cm" | "in">(
  "hem.unit",
  /^en-(US|LR)|^my/.test(navigator.language) ? "in" : "cm",
);
export const singleKeys = kept<"on" | "off">("hem.keys", "on");
export const paperSize = kept<"a4" | "letter" | "a3" | "legal" | "a2" | "a1" | "a0" | "roll">(
  "hem.paper",
  "a4",
);

/** How the desk is laid out: by the day a dress is due, or as it was last worked on. */
export const deskOrder = kept<"due" | "worked">("hem.desk", "due");

/** The walk round the bench: on a first visit it is going, and once left it is done. */
export const walk = kept<"going" | "done">("hem.walk", "going");

export const inchMark = kept<"8" | "16">("hem.mark", "8");

/** Whether this browser's locale writes a decimal with a comma. */
const comma = new Intl.NumberFormat().format(1.5).includes(",");

/** How lengths are read to this person: in which unit, to which mark of the inch, with a comma or a point. */
export function readingOf<U extends "cm" | "in" | undefined = undefined>(unit?: U) {
  return { unit, mark: Number(inchMark.read()), comma };
}

/** The same as the end of an address, for what is fetched as a file. */
export const pdfQuery = (unit: "cm" | "in") =>
  new URLSearchParams(
    Object.entries(readingOf(unit)).map(([name, value]) => [name, String(value)]),
  ).toString();

/** Puts the chosen light on the page. */
export function useLight() {
  const chosen = light.use();
  useEffect(() => {
    document.documentElement.dataset.light = chosen;
  }, [chosen]);
  return chosen;
}

/** Runs single-key shortcuts, unless something is being typed or they are switched off. */
export function useKeys(keys: Record<string, (event: KeyboardEvent) => void>) {
  const [latest] = useState({ keys });
  latest.keys = keys;
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const at = event.target as HTMLElement;
      const typing = at.closest("input, textarea, select, [role=dialog], [role=radiogroup]");
      const undoing = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z";
      if (event.altKey || ((event.ctrlKey || event.metaKey) && !undoing)) return;
      if (!undoing && (typing || singleKeys.read() === "off")) return;
      if (undoing && typing?.matches("input, textarea")) return;
      const run = latest.keys[event.key.length === 1 ? event.key.toLowerCase() : event.key];
      if (run) {
        event.preventDefault();
        run(event);
      }
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [latest]);
}
