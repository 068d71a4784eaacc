const WINDOW = "hem.window";

/** This window's own name, the same after it is loaded again. */
export function windowName(): string {
  let name = sessionStorage.getItem(WINDOW);
  if (!name) {
    name = crypto.randomUUID();
    sessionStorage.setItem(WINDOW, name);
  }
  return name;
}

/** The few letters of it that stand in the list of what was done. */
export const shortName = () => windowName().slice(0, 4);
