import type { NextFunction, Request, Response } from "express";
import { HttpProblem } from "./problems";

/** Requests that are not answered yet: a stop waits for them, and takes no new ones. */
export class UnderWay {
  private readonly open = new Set<Response>();
  private isStopping = false;
  private done: (() => void) | null = null;

  get count(): number {
    return this.open.size;
  }

  get stops(): boolean {
    return this.isStopping;
  }

  readonly watch = (request: Request, response: Response, next: NextFunction): void => {
    if (this.isStopping) {
      response.set("Connection", "close");
      throw new HttpProblem("unavailable", "This server is being stopped. It is tried again.");
    }
    // A stream is no request that comes to an end by itself.
    if (request.headers.accept === "text/event-stream") {
      next();
      return;
    }
    this.open.add(response);
    response.on("close", () => {
      this.open.delete(response);
      if (this.open.size === 0) this.done?.();
    });
    next();
  };

  /** Resolves when everything is answered, or the patience is over. */
  async drain(patienceMilliseconds: number): Promise<void> {
    this.isStopping = true;
    if (this.open.size === 0) return;
    await new Promise<void>((resolve) => {
      const timer = setTimeout(resolve, patienceMilliseconds);
      this.done = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }
}
