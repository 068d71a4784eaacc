import { useEffect, useRef } from "react";
import type { Unit } from "../api/client";

/** A bare number with the unit it was typed in written after it; what names its unit already stays. */
function withUnit(typed: string, unit: Unit): string {
  return typed.trim() === "" || /[a-z"\u2032\u2033']/i.test(typed) ? typed : `${typed.trim()} ${unit}`;
}

/** When another unit is chosen, what was typed as bare numbers goes on meaning what it meant. */
export function useSettledUnits(
  unit: Unit,
  settle: (settled: (typed: Record<string, string>, lengths: string[]) => Record<string, string>) => void,
) {
  const before = useRef(unit);
  useEffect(() => {
    const was = before.current;
    if (was === unit) return;
    before.current = unit;
    settle((typed, lengths) =>
      Object.fromEntries(
        Object.entries(typed).map(([name, value]) => [
          name,
          lengths.includes(name) ? withUnit(value, was) : value,
        ]),
      ),
    );
  }, [unit, settle]);
}
