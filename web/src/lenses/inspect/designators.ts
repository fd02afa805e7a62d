interface Named {
  readonly designator: string;
}

/** Whether a board has a part of this name; large and small letters are the same. */
export const isTaken = (positions: readonly Named[], designator: string) =>
  positions.some((one) => one.designator.toUpperCase() === designator.toUpperCase());

/** The capacitor after the highest-numbered one of a board. */
export function nextCapacitor(positions: readonly Named[]): string {
  const numbers = positions.map((one) => Number(/^C(\d+)$/i.exec(one.designator)?.[1] ?? 0));
  return `C${Math.max(0, ...numbers) + 1}`;
}

/** The same letters with the next number; nothing where there is no number to go on from. */
export function following(designator: string): string {
  const match = /^(.*?)(\d+)$/.exec(designator);
  return match ? `${match[1]}${Number(match[2]) + 1}` : "";
}
