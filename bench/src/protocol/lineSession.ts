import { CommandError } from "../instruments/commandError";
import type { Instrument } from "../instruments/instrument";
import { parseCommand } from "./commandLine";

/** So many lines in a row that no instrument knows, and whoever speaks is none of ours. */
const mostStrangeLines = 3;

/** Errors that wait to be asked for; a full queue says so once. */
const longestQueue = 20;

/** One instrument as one line after the other is put to it: answers, and keeps its errors until asked. */
export class LineSession {
  private readonly errors: string[] = [];
  private strangeLines = 0;

  constructor(private readonly instrument: Instrument) {}

  /** Speaks no language of ours: the line is hung up. */
  get isStranger(): boolean {
    return this.strangeLines >= mostStrangeLines;
  }

  /** @returns the answer line, or null where none is due */
  take(line: string): string | null {
    if (line.trim() === "") return null;
    this.instrument.heard?.();
    const command = parseCommand(line);
    if (!command) return this.strange(-102, "Syntax error");
    switch (command.header) {
      case "*IDN":
        this.strangeLines = 0;
        return this.instrument.identity;
      case "*CLS":
        this.errors.length = 0;
        this.strangeLines = 0;
        return null;
      case "SYST:ERR":
        this.strangeLines = 0;
        return this.errors.shift() ?? '0,"No error"';
    }
    const handler = Object.hasOwn(this.instrument.handlers, command.header)
      ? this.instrument.handlers[command.header]
      : undefined;
    if (!handler) return this.strange(-113, "Undefined header");
    this.strangeLines = 0;
    try {
      return handler(command);
    } catch (error) {
      if (!(error instanceof CommandError)) throw error;
      this.keep(error.code, error.message);
      // A query is answered in any case, or the other side would wait: the number for "reads nothing".
      return command.isQuery ? "9.9e37" : null;
    }
  }

  private strange(code: number, message: string): null {
    this.strangeLines += 1;
    return this.keep(code, message);
  }

  private keep(code: number, message: string): null {
    if (this.errors.length < longestQueue) this.errors.push(`${code},"${message}"`);
    else this.errors[longestQueue - 1] = '-350,"Queue overflow"';
    return null;
  }
}
