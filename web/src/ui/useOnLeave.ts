import { useEffect, useRef } from "react";

/** Does something with what stands there when its place is left, by whatever way. */
export function useOnLeave(leave: () => void): void {
  const latest = useRef(leave);
  latest.current = leave;
  useEffect(() => () => latest.current(), []);
}
