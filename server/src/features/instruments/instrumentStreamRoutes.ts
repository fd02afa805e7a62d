import { routes } from "@pale-cap/contract";
import type { Request, Response } from "express";
import type { AppContext } from "../../appContext";
import { HttpProblem } from "../../http/problems";
import { live, type Route } from "../../http/route";

const heartbeatMilliseconds = 15_000;
/** More open streams than any shop has pages: beyond it something opens them by mistake or on purpose. */
const mostStreams = 100;

/** What the instruments say now, for as long as somebody looks. */
export function instrumentStreamRoutes({ instruments }: AppContext): readonly Route[] {
  let open = 0;
  function stream(request: Request, response: Response): void {
    if (open >= mostStreams) throw new HttpProblem("too_many", "Too many pages watch the instruments at once.");
    open += 1;
    response.writeHead(200, {
      "Content-Type": "text/event-stream",
      "Cache-Control": "no-store",
      "X-Accel-Buffering": "no",
    });
    const send = (data: unknown) => response.write(`data: ${JSON.stringify(data)}\n\n`);
    for (const state of instruments.states) send(state);
    const stopListening = instruments.listen(send);
    const heartbeat = setInterval(() => response.write(": still here\n\n"), heartbeatMilliseconds);
    request.on("close", () => {
      open -= 1;
      clearInterval(heartbeat);
      stopListening();
    });
  }
  return [live({ method: "get", path: routes.instrumentStream, right: "read", live: stream })];
}
