/** A day, the same day everywhere: in this person's own way of writing it. */
const written = (iso: string, how: Intl.DateTimeFormatOptions) =>
  new Intl.DateTimeFormat(undefined, { ...how, timeZone: "UTC" }).format(new Date(iso));

export const day = (iso: string) => written(iso, { dateStyle: "medium" });
export const dayAndMonth = (iso: string) => written(iso, { day: "numeric", month: "long" });
export const weekday = (iso: string) => written(iso, { weekday: "long" });
export const yearOf = (iso: string) => Number(iso.slice(0, 4));

/** Today, as this person's clock has it. */
export const today = () =>
  new Date(Date.now() - new Date().getTimezoneOffset() * 60_000).toISOString().slice(0, 10);

/** How many days lie between today, as this person's clock has it, and a day. */
export function daysUntil(iso: string): number {
  const now = new Date();
  const today = Date.UTC(now.getFullYear(), now.getMonth(), now.getDate());
  return Math.round((new Date(`${iso.slice(0, 10)}T00:00:00Z`).getTime() - today) / 86_400_000);
}

/** That many days from now, in words: tomorrow, in 17 days, 3 days ago. */
export const inDays = (count: number) =>
  new Intl.RelativeTimeFormat(undefined, { numeric: "auto" }).format(count, "day");

/** A moment by the clock on this person's wall. */
export const moment = (iso: string) =>
  new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" }).format(new Date(iso));
