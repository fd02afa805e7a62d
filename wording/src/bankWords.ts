/** What stands above the kits: how many were tried out of how many parts, or that none fits. */
export function bankLeadWords(
  bank: { readonly ranked: readonly unknown[]; readonly partCount: number; readonly leadingCount: number },
  placeCount: number,
  /** Places that have room for two cans. */
  sharedCount: number,
): string {
  const { ranked, partCount, leadingCount } = bank;
  if (partCount === 0) return "No part of the catalogue may stand in any of these places.";
  const parts = `${partCount} part${partCount === 1 ? "" : "s"}`;
  const more = leadingCount > 2 ? `, and every kit of more kinds out of the ${leadingCount} that lead` : "";
  if (placeCount === 1) {
    return `Every pair for this one place out of ${parts} was tried${ranked.length === 0 ? ": none keeps every limit together." : "; the best stand below."}`;
  }
  const pairs = sharedCount === 0 ? "" : ", with two cans in one place where two have room";
  const tried = `Every kit of one or two kinds for ${placeCount} places out of ${parts} was tried${pairs}${more}`;
  return ranked.length === 0 ? `${tried}: none keeps every limit together.` : `${tried}; the best stand below.`;
}

/** How a second can hangs at a place. */
export const secondCanWords = (designator: string): string =>
  `two cans at ${designator}: the second beside it on short wires to the same holes, fixed so that it cannot swing`;

/** What to look at where a kit is no equal pair. */
export function kitWords(kit: {
  readonly ids: readonly (string | null)[];
  readonly mostLoadRatio: number;
}): string | null {
  const emptyCount = kit.ids.filter((id) => id === null).length;
  const kinds = new Set(kit.ids.filter((id) => id !== null)).size;
  const notes = [
    ...(kinds > 1
      ? [`unequal partners: the one of less ESR carries most, ${Math.round(100 * kit.mostLoadRatio)} % of its rating`]
      : []),
    ...(emptyCount > 0
      ? [`${emptyCount} place${emptyCount === 1 ? "" : "s"} left empty: show by a load step that it does not ring`]
      : []),
  ];
  return notes.length === 0 ? null : notes.join("; ");
}
