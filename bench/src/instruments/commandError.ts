/** An error as an instrument keeps it until it is asked for. */
export class CommandError extends Error {
  constructor(
    readonly code: number,
    message: string,
  ) {
    super(message);
  }
}
