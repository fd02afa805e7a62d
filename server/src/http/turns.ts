/**
 * Work that must go one after the other takes turns here, before it asks for a connection: forty writes of one job wait
 * in this line, not in the database's, and leave connections for everything else.
 */
export class Turns {
  private readonly tails = new Map<string, Promise<unknown>>();

  take<T>(key: string, work: () => Promise<T>): Promise<T> {
    const turn = (this.tails.get(key) ?? Promise.resolve()).then(work);
    const tail = turn.then(
      () => undefined,
      () => undefined,
    );
    this.tails.set(key, tail);
    void tail.then(() => {
      if (this.tails.get(key) === tail) this.tails.delete(key);
    });
    return turn;
  }

  /** How many lines there are: none while nobody writes. */
  get size(): number {
    return this.tails.size;
  }
}
