import { useCallback, useEffect, useRef, useState } from "react";
import { answer, api, type Hang, type Recipe, type Unit } from "../api/client";
import { readingOf } from "../ui/preferences";

const stopFalling = (number: number | null) => {
  if (number !== null) void api.DELETE("/api/hangs/{number}", { params: { path: { number } } });
};

/** A dress hung: asked for, watched as it falls, stopped when whoever asked leaves. */
export function useHanging(unit: Unit) {
  const [hang, setHang] = useState<Hang | null>(null);
  const [wrong, setWrong] = useState<unknown>(null);
  /** The dress that came to rest last: the next one begins as it lies. */
  const before = useRef<number | undefined>(undefined);

  const begin = useCallback(
    (recipe: Recipe, after?: number) => {
      setWrong(null);
      setHang(null);
      answer(
        api.POST("/api/hangs", {
          params: { query: { ...readingOf(unit), after: after ?? before.current } },
          body: recipe as never,
        }),
      ).then(setHang, setWrong);
    },
    [unit],
  );

  // who leaves does not wait for it, and the next dress does not wait behind it
  const falling = useRef<number | null>(null);
  falling.current = hang?.state === "falling" ? hang.number : null;
  useEffect(() => () => stopFalling(falling.current), []);
  const stop = useCallback(() => stopFalling(falling.current), []);

  const number = hang?.number;
  useEffect(() => {
    if (number === undefined) return;
    const said = new URLSearchParams(
      Object.entries(readingOf(unit)).map(([name, value]) => [name, String(value)]),
    );
    const events = new EventSource(`/api/hangs/${number}/events?${said}`);
    events.onmessage = (event) => {
      const next = JSON.parse(event.data) as Hang;
      setHang((last) => ({
        ...next,
        shape: next.shape ?? last?.shape ?? null,
        right: next.right && { ...next.right, shape: next.right.shape ?? last?.right?.shape ?? null },
      }));
      if (next.state === "rest") before.current = next.number;
      if (next.state !== "falling") events.close();
    };
    return () => events.close();
  }, [number, unit]);

  return { hang, wrong, begin, stop };
}
