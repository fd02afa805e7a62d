import type { Server } from "node:http";

/** So long at most; a capture over a weak radio takes its time, and streams say something every few seconds. */
export const usualPatience = { headerMilliseconds: 15_000, requestMilliseconds: 180_000, silenceMilliseconds: 120_000 };

/** How often a server looks for those who take too long. */
export const checkingOptions = { connectionsCheckingInterval: 5000 } as const;

/** Who sends or reads by the drop holds no connection for ever. */
export function boundSlowClients(server: Server, patience = usualPatience): void {
  server.headersTimeout = patience.headerMilliseconds;
  server.requestTimeout = patience.requestMilliseconds;
  server.keepAliveTimeout = 20_000;
  server.maxHeadersCount = 100;
  server.maxConnections = 2000;
  server.setTimeout(patience.silenceMilliseconds);
}
