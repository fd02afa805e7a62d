import { useCallback, useState } from "react";

/** Which fields of a form hold text that is not understood: while there is one, nothing is stored. */
export function useInvalidFields() {
  const [invalid, setInvalid] = useState<ReadonlySet<string>>(new Set());
  const validity = useCallback(
    (name: string) => (isValid: boolean) =>
      setInvalid((now) => {
        if (now.has(name) !== isValid) return now;
        const next = new Set(now);
        if (isValid) next.delete(name);
        else next.add(name);
        return next;
      }),
    [],
  );
  return [invalid, validity] as const;
}
