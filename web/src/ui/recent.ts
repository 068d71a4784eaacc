/** The dresses opened last in this browser, the newest first. */
const KEPT = "hem.recent";
const MOST = 8;

function read(): number[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEPT) ?? "[]");
    return Array.isArray(kept) ? kept.filter((id) => Number.isInteger(id)) : [];
  } catch {
    return []; // somebody else's words under our name: they are written over
  }
}

export function opened(id: number) {
  localStorage.setItem(KEPT, JSON.stringify([id, ...read().filter((one) => one !== id)].slice(0, MOST)));
}

export function forget(id: number) {
  localStorage.setItem(KEPT, JSON.stringify(read().filter((one) => one !== id)));
}

/** The dress opened before the one that is open; on the desk the last that was. */
export const lastBefore = (now: number | null) => read().find((id) => id !== now) ?? null;
