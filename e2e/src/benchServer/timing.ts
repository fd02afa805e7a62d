/** Milliseconds as a bench tells them. */
export function summary(taken: readonly number[]): string {
  const sorted = [...taken].sort((a, b) => a - b);
  const at = (share: number) =>
    `${Math.round(sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0)}`;
  return `median ${at(0.5)}, 99 % ${at(0.99)}, most ${at(1)} ms of ${sorted.length}`;
}

/** How long each of so many goes takes, one after the other. */
export async function times(count: number, work: (n: number) => Promise<unknown>): Promise<number[]> {
  const taken: number[] = [];
  for (let n = 0; n < count; n++) {
    const start = performance.now();
    await work(n);
    taken.push(performance.now() - start);
  }
  return taken;
}
