import { useEffect, useState } from "react";

/** Minutes and seconds since a timer was started, on top of what was spent before. */
export function Timer({ since, spent }: { since: string; spent: number }) {
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    const tick = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(tick);
  }, []);
  const seconds = Math.max(0, Math.round((now - Date.parse(since)) / 1000 + spent * 60));
  const [minutes, rest] = [Math.floor(seconds / 60), seconds % 60];
  return (
    <span className="tabular-nums">
      {minutes}:{String(rest).padStart(2, "0")}
    </span>
  );
}
