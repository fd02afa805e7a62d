/** Headers by which client and server learn how their clocks stand to each other. */
export const clockHeaders = {
  /** When a request was sent, by the client's clock, in milliseconds since 1970. */
  sentAt: "x-sent-at",
  /** Which clock that was. */
  clockId: "x-clock-id",
  /** The server's clock at answering, in milliseconds since 1970. */
  serverNow: "x-server-now",
} as const;

/** Where a fact stands in the shop's one order, and what is known of its clock. */
export interface StoredFact {
  readonly sequence: number | null;
  readonly clockId: string | null;
  readonly receivedAt: string | null;
  readonly clockAheadSeconds: number | null;
  /** The job was closed when it came: it is kept, shown, and proves nothing until the job is opened. */
  readonly cameAfterClosing: boolean;
}
