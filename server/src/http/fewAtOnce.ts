import { HttpProblem } from "./problems";

/** A few at once, some more in line, nobody beyond that. */
export class FewAtOnce {
  private running = 0;
  private readonly line: (() => void)[] = [];

  constructor(
    private readonly most: number,
    private readonly mostWaiting: number,
  ) {}

  async take<T>(work: () => Promise<T>): Promise<T> {
    if (this.running >= this.most) {
      if (this.line.length >= this.mostWaiting) {
        throw new HttpProblem(
          "too_many",
          "Too many files come at once. Nothing was stored; send it again in a moment.",
        );
      }
      await new Promise<void>((resolve) => this.line.push(resolve));
    } else this.running += 1;
    try {
      return await work();
    } finally {
      // The place goes to the next in line, or is free.
      const next = this.line.shift();
      if (next) next();
      else this.running -= 1;
    }
  }
}
