import { createServer, type Server } from "node:http";
import type { RequestHandler } from "express";
import { collectDefaultMetrics, Gauge, Histogram, Registry } from "prom-client";

export interface Metrics {
  /** Goes before every route: counts each answer with its time. */
  readonly count: RequestHandler;
  /** Tells the figures on loopback alone, in the common text format. */
  listen(port: number): Promise<Server>;
  text(): Promise<string>;
}

/** Figures of this process; names of routes, never of people or things. */
export function openMetrics(state: { readonly streams: () => number; readonly waiting: () => number }): Metrics {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const answers = new Histogram({
    name: "pale_cap_answer_seconds",
    help: "Time from a request to the end of its answer, by route.",
    labelNames: ["method", "route", "status"],
    buckets: [0.005, 0.02, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10],
    registers: [registry],
  });
  const gauge = (name: string, help: string, value: () => number) =>
    new Gauge({
      name,
      help,
      registers: [registry],
      collect() {
        this.set(value());
      },
    });
  gauge("pale_cap_open_streams", "Pages that listen to jobs and instruments.", state.streams);
  gauge("pale_cap_requests_under_way", "Requests that are not answered yet, without streams.", state.waiting);
  return {
    count: (request, response, next) => {
      const end = answers.startTimer();
      response.on("finish", () => {
        // The pattern, with no id in it; what has none is not a route.
        const route = (request.route as { path?: string } | undefined)?.path ?? "other";
        end({
          method: request.method,
          route: route.startsWith("/api") ? route : "client",
          status: response.statusCode,
        });
      });
      next();
    },
    text: () => registry.metrics(),
    listen: (port) =>
      new Promise((resolve, reject) => {
        const server = createServer((request, response) => {
          if (request.url !== "/metrics") {
            response.writeHead(404).end();
            return;
          }
          void registry.metrics().then((text) => response.setHeader("Content-Type", registry.contentType).end(text));
        });
        server.once("error", reject).listen(port, "127.0.0.1", () => resolve(server));
      }),
  };
}
