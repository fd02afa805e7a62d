import { existsSync } from "node:fs";
import { join } from "node:path";
import { routes } from "@pale-cap/contract";
import express, { type Express } from "express";
import helmet from "helmet";
import { pinoHttp } from "pino-http";
import type { AppContext } from "./appContext";
import { benchRoutes } from "./features/bench/benchRoutes";
import { boardRoutes } from "./features/boards/boardRoutes";
import { boardTypeRoutes } from "./features/boardTypes/boardTypeRoutes";
import { paperRoutes } from "./features/boardTypes/paperRoutes";
import { captureRoutes } from "./features/captures/captureRoutes";
import { catalogueRoutes } from "./features/catalogue/catalogueRoutes";
import { energyRoutes } from "./features/energy/energyRoutes";
import { familyRoutes } from "./features/families/familyRoutes";
import { houseRuleRoutes } from "./features/houseRules/houseRuleRoutes";
import { instrumentRoutes } from "./features/instruments/instrumentRoutes";
import { jobRoutes } from "./features/jobs/jobRoutes";
import { peopleRoutes } from "./features/people/peopleRoutes";
import { photoRoutes } from "./features/photos/photoRoutes";
import { planRoutes } from "./features/plans/planRoutes";
import { readingRoutes } from "./features/readings/readingRoutes";
import { teardownRoutes } from "./features/teardown/teardownRoutes";
import { verdictRoutes } from "./features/verdicts/verdictRoutes";
import { HttpProblem, problemHandler } from "./http/problems";

/** The application without a port: what tests drive and what main listens with. */
export function createApp(context: AppContext & { readonly webFolder?: string }): Express {
  const app = express();
  app.disable("x-powered-by");
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          "style-src": ["'self'", "'unsafe-inline'"],
          "worker-src": ["'self'", "blob:"],
          "img-src": ["'self'", "data:", "blob:"],
          "upgrade-insecure-requests": null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(pinoHttp({ logger: context.logger, autoLogging: false }));
  app.use("/api", refuseForeignOrigins);
  app.use("/api", express.json({ limit: "512kb", strict: true }));

  app.get(routes.health, async (_request, response) => {
    await context.database.sequelize.query("SELECT 1");
    response.json({ status: "ok" });
  });
  for (const feature of [
    benchRoutes,
    boardRoutes,
    boardTypeRoutes,
    paperRoutes,
    captureRoutes,
    catalogueRoutes,
    energyRoutes,
    familyRoutes,
    houseRuleRoutes,
    instrumentRoutes,
    jobRoutes,
    peopleRoutes,
    photoRoutes,
    planRoutes,
    readingRoutes,
    teardownRoutes,
    verdictRoutes,
  ]) {
    app.use(feature(context));
  }
  app.use("/api", (request) => {
    throw new HttpProblem("not_found", `There is no ${request.method} under this address.`);
  });
  if (context.webFolder && existsSync(context.webFolder)) serveClient(app, context.webFolder);
  app.use(problemHandler);
  return app;
}

/** A page of another origin open in the same browser must not write here; tools without an Origin header may. */
function refuseForeignOrigins(request: express.Request, _response: express.Response, next: express.NextFunction) {
  const origin = request.headers.origin;
  if (origin && request.method !== "GET" && URL.canParse(origin) && new URL(origin).host !== request.headers.host) {
    throw new HttpProblem("conflict", "This page does not belong to this server.");
  }
  next();
}

/** Hashed assets for ever, everything else of the single page from index.html; a missing asset stays missing. */
function serveClient(app: Express, webFolder: string): void {
  app.use("/assets", express.static(join(webFolder, "assets"), { immutable: true, maxAge: "1y" }));
  app.use("/assets", () => {
    throw new HttpProblem("not_found", "This file is not part of the client.");
  });
  app.use(express.static(webFolder, { index: false }));
  app.get("/{*path}", (_request, response) => {
    response.set("Cache-Control", "no-cache").sendFile(join(webFolder, "index.html"));
  });
}
