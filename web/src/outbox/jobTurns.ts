/** The last work of each job that is on its way. */
const tails = new Map<string, Promise<unknown>>();

/** Facts, edits and captures of one job go one after the other, in the order in which a person made them. */
export function inJobTurn<T>(jobId: string, work: () => Promise<T>): Promise<T> {
  const turn = (tails.get(jobId) ?? Promise.resolve()).then(work);
  const tail = turn.then(
    () => undefined,
    () => undefined,
  );
  tails.set(jobId, tail);
  void tail.then(() => {
    if (tails.get(jobId) === tail) tails.delete(jobId);
  });
  return turn;
}
