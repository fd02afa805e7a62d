import type { Request, Response } from "express";
import type { Sessions } from "../people/sessions";
import { HttpProblem } from "./problems";

/** More open streams than any shop has pages: beyond it something opens them by mistake or on purpose. */
const mostStreams = 400;
/** A browser that takes nothing off the line is let go: it comes back and asks for what it missed. */
const mostUnsentBytes = 1_000_000;

/** Open streams of this process: counted, kept alive, and ended before it stops. */
export class EventStreams {
  private readonly open = new Set<Response>();
  private isClosing = false;

  constructor(private readonly heartbeatMilliseconds = 15_000) {}

  get count(): number {
    return this.open.size;
  }

  /**
   * Opens one for as long as the page looks.
   *
   * @param sessions ends the stream when the session that opened it is over; null: nobody signs in
   * @param onEnd called once when it is over, whoever ended it
   * @returns how to say something on it
   */
  begin(
    request: Request,
    response: Response,
    onEnd: () => void,
    sessions: Pick<Sessions, "holds"> | null = null,
  ): (data: unknown) => void {
    if (this.isClosing) throw new HttpProblem("unavailable", "This server is being stopped.");
    if (this.open.size >= mostStreams) throw new HttpProblem("too_many", "Too many pages watch at once.");
    response.writeHead(200, {
      "Content-Type": "text/event-stream",
      "Cache-Control": "no-store",
      // A proxy in front must not collect what is to be seen at once.
      "X-Accel-Buffering": "no",
    });
    response.flushHeaders();
    this.open.add(response);
    // Who was signed out meanwhile hears nothing more.
    const stillMay = async () => sessions === null || sessions.holds(request.sessionID).catch(() => true);
    const heartbeat = setInterval(() => {
      response.write(": still here\n\n");
      void stillMay().then((may) => may || response.end());
    }, this.heartbeatMilliseconds);
    const end = () => {
      if (!this.open.delete(response)) return;
      clearInterval(heartbeat);
      onEnd();
    };
    request.on("close", end);
    response.on("close", end);
    return (data) => {
      if (response.writableLength > mostUnsentBytes) response.destroy();
      else if (!response.writableEnded) response.write(`data: ${JSON.stringify(data)}\n\n`);
    };
  }

  /** Browsers come back by themselves, to whoever answers then. */
  close(): void {
    this.isClosing = true;
    for (const response of this.open) response.end("retry: 500\n\n");
  }
}
