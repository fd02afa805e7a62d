import { useEffect, useRef } from "react";
import type { Live } from "./instruments/useLive";

/**
 * Logs a live value once it has stood still, and arms itself again when it moves: a probe that stays where it is gives one
 * reading, not one each second.
 */
export function useHoldToLog(isHolding: boolean, live: Live, targetKey: string, log: () => void): void {
  const spent = useRef<string | null>(null);
  const latest = useRef(log);
  latest.current = log;
  useEffect(() => {
    if (!live.isHere || !live.isSteady || live.value === null) {
      if (spent.current === targetKey && live.isHere && !live.isSteady) spent.current = null;
      return;
    }
    if (!isHolding || spent.current === targetKey) return;
    spent.current = targetKey;
    latest.current();
  }, [isHolding, live, targetKey]);
}
