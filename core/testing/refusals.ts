/** What no argument that must be above 0 may be. */
export const notPositive = [0, -1, Number.NaN, Number.POSITIVE_INFINITY];
/** What no argument of at least 0 may be. */
export const negative = [-1, Number.NaN, Number.POSITIVE_INFINITY];

/**
 * Tries every bad value of every argument by itself, the others sound.
 *
 * @returns what was taken all the same, or refused under another name; empty where each is refused as itself
 */
export function wronglyTaken<Q extends object>(
  of: (question: Q) => unknown,
  sound: Q,
  bad: { readonly [K in keyof Q]?: readonly unknown[] },
): readonly string[] {
  const tried = Object.entries<readonly unknown[]>(bad as Readonly<Record<string, readonly unknown[]>>);
  return tried.flatMap(([argument, values]) =>
    values.flatMap((value) => {
      try {
        of({ ...sound, [argument]: value });
        return [`${argument} ${String(value)} is taken`];
      } catch (error) {
        const told = (error as { argument?: string }).argument;
        return told === argument ? [] : [`${argument} ${String(value)} is refused as ${told ?? String(error)}`];
      }
    }),
  );
}
