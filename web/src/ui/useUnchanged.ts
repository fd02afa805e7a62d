import { useState } from "react";

/** The same object for as long as it holds the same: forms copy theirs at every key, and what is drawn from it need not be drawn anew. */
export function useUnchanged<Value>(value: Value): Value {
  const [kept, keep] = useState(value);
  if (kept === value || JSON.stringify(kept) === JSON.stringify(value)) return kept;
  keep(value);
  return value;
}
