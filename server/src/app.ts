import { existsSync } from "node:fs";
import { join } from "node:path";
import express, { type Express } from "express";
import helmet from "helmet";
import type { AppContext } from "./appContext";
import { backupRoutes } from "./features/backups/backupRoutes";
import { benchRoutes } from "./features/bench/benchRoutes";
import { boardRoutes } from "./features/boards/boardRoutes";
import { boardTypeRoutes } from "./features/boardTypes/boardTypeRoutes";
import { paperRoutes } from "./features/boardTypes/paperRoutes";
import { bundleRoutes } from "./features/bundles/bundleRoutes";
import { captureRoutes } from "./features/captures/captureRoutes";
import { casebookRoutes } from "./features/casebook/casebookRoutes";
import { catalogueRoutes } from "./features/catalogue/catalogueRoutes";
import { customerRoutes } from "./features/customers/customerRoutes";
import { energyRoutes } from "./features/energy/energyRoutes";
import { factRoutes } from "./features/facts/factRoutes";
import { familyRoutes } from "./features/families/familyRoutes";
import { houseRuleRoutes } from "./features/houseRules/houseRuleRoutes";
import { benchSupplyRoutes } from "./features/instruments/benchSupplyRoutes";
import { instrumentRoutes } from "./features/instruments/instrumentRoutes";
import { instrumentStreamRoutes } from "./features/instruments/instrumentStreamRoutes";
import { workbenchRoutes } from "./features/instruments/workbenchRoutes";
import { handOverRoutes } from "./features/jobs/handOverRoutes";
import { jobRoutes } from "./features/jobs/jobRoutes";
import { labelRoutes } from "./features/labels/labelRoutes";
import { liveRoutes } from "./features/live/liveRoutes";
import { orderRoutes } from "./features/orders/orderRoutes";
import { accountRoutes } from "./features/people/accountRoutes";
import { auditRoutes } from "./features/people/auditRoutes";
import { sessionRoutes } from "./features/people/sessionRoutes";
import { photoRoutes } from "./features/photos/photoRoutes";
import { planRoutes } from "./features/plans/planRoutes";
import { practiceRoutes } from "./features/practice/practiceRoutes";
import { reminderRoutes } from "./features/reminders/reminderRoutes";
import { reportRoutes } from "./features/reports/reportRoutes";
import { comebackRoutes } from "./features/returns/comebackRoutes";
import { runRoutes } from "./features/runs/runRoutes";
import { healthRoutes } from "./features/shop/healthRoutes";
import { shopRoutes } from "./features/shop/shopRoutes";
import { stockRoutes } from "./features/stock/stockRoutes";
import { teardownRoutes } from "./features/teardown/teardownRoutes";
import { verdictRoutes } from "./features/verdicts/verdictRoutes";
import { type Limits, rateLimits } from "./http/limits";
import { requestLog } from "./http/logging";
import { loopbackNames, refuseForeign, type ServedAt } from "./http/origins";
import { HttpProblem, problemHandler } from "./http/problems";
import { mount, type Route } from "./http/route";
import type { Metrics } from "./metrics";
import { identifyEveryone } from "./people/sessions";

/** The application without a port: what tests drive and what main listens with. */
export function createApp(
  context: AppContext & {
    readonly webFolder?: string;
    readonly servedAt?: ServedAt;
    readonly trustedProxies?: readonly string[];
    readonly metrics?: Metrics;
    readonly limits?: Limits;
    readonly logsRequests?: boolean;
  },
): Express {
  const app = express();
  app.disable("x-powered-by");
  // Nobody else is believed who says for whom they ask.
  app.set("trust proxy", context.trustedProxies ?? false);
  app.use(requestLog(context.logger, context.logsRequests ?? false));
  app.use(refuseForeign(context.servedAt ?? { hosts: loopbackNames, ports: [] }));
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
      strictTransportSecurity: context.servedAt?.isSecure ? { maxAge: 180 * 86_400, includeSubDomains: false } : false,
    }),
  );
  if (context.metrics) app.use(context.metrics.count);
  app.use("/api", keptNowhere, context.underWay.watch);
  app.use("/api", ...(context.sessions?.identify ?? [identifyEveryone]));
  if (context.sessions) app.use("/api", ...rateLimits(context.limits));
  app.use("/api", express.json({ limit: "512kb", strict: true }));

  mount(app, context, declaredRoutes(context));
  app.use("/api", (request) => {
    throw new HttpProblem("not_found", `There is no ${request.method} under this address.`);
  });
  if (context.webFolder && existsSync(context.webFolder)) serveClient(app, context.webFolder);
  app.use(problemHandler);
  return app;
}

/** Every route of the product. */
export function declaredRoutes(context: AppContext): readonly Route[] {
  return [
    ...backupRoutes(context),
    ...benchRoutes(),
    ...benchSupplyRoutes(context),
    ...boardRoutes(),
    ...boardTypeRoutes(),
    ...captureRoutes(context),
    ...casebookRoutes(context),
    ...catalogueRoutes(),
    ...energyRoutes(),
    ...factRoutes(context),
    ...familyRoutes(context),
    ...handOverRoutes(context),
    ...healthRoutes(context),
    ...houseRuleRoutes(context),
    ...instrumentStreamRoutes(context),
    ...instrumentRoutes(context),
    ...jobRoutes(),
    ...paperRoutes(context),
    ...orderRoutes(),
    ...accountRoutes(context),
    ...auditRoutes(context),
    ...sessionRoutes(context),
    ...photoRoutes(context),
    ...planRoutes(),
    ...practiceRoutes(context),
    ...bundleRoutes(context),
    ...comebackRoutes(),
    ...customerRoutes(context),
    ...labelRoutes(context),
    ...liveRoutes(context),
    ...reminderRoutes(),
    ...reportRoutes(context),
    ...runRoutes(context),
    ...shopRoutes(context),
    ...stockRoutes(),
    ...teardownRoutes(),
    ...verdictRoutes(),
    ...workbenchRoutes(context),
  ];
}

/** Answers tell of people: nothing of them stays in a browser or on the way. */
function keptNowhere(_request: express.Request, response: express.Response, next: express.NextFunction): void {
  response.set("Cache-Control", "no-store");
  next();
}

/** Hashed assets for ever, everything else of the single page from index.html; a missing asset stays missing. */
function serveClient(app: Express, webFolder: string): void {
  app.use("/assets", express.static(join(webFolder, "assets"), { immutable: true, maxAge: "1y" }));
  app.use("/assets", () => {
    throw new HttpProblem("not_found", "This file is not part of the client.");
  });
  // What keeps the client in a browser must never be kept itself.
  app.use("/sw.js", (_request, response, next) => {
    response.set("Cache-Control", "no-cache");
    next();
  });
  app.use(express.static(webFolder, { index: false, cacheControl: false }));
  app.get("/{*path}", (_request, response) => {
    response.set("Cache-Control", "no-cache").sendFile(join(webFolder, "index.html"));
  });
}
