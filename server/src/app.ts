import { existsSync } from "node:fs";
import { join } from "node:path";
import { routes } from "@pale-cap/contract";
import express, { type Express } from "express";
import helmet from "helmet";
import { pinoHttp } from "pino-http";
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
import { orderRoutes } from "./features/orders/orderRoutes";
import { peopleRoutes } from "./features/people/peopleRoutes";
import { photoRoutes } from "./features/photos/photoRoutes";
import { planRoutes } from "./features/plans/planRoutes";
import { practiceRoutes } from "./features/practice/practiceRoutes";
import { reminderRoutes } from "./features/reminders/reminderRoutes";
import { reportRoutes } from "./features/reports/reportRoutes";
import { comebackRoutes } from "./features/returns/comebackRoutes";
import { runRoutes } from "./features/runs/runRoutes";
import { shopRoutes } from "./features/shop/shopRoutes";
import { stockRoutes } from "./features/stock/stockRoutes";
import { teardownRoutes } from "./features/teardown/teardownRoutes";
import { verdictRoutes } from "./features/verdicts/verdictRoutes";
import { logSerializers } from "./http/logging";
import { loopbackNames, refuseForeign, type ServedAt } from "./http/origins";
import { HttpProblem, problemHandler } from "./http/problems";
import { live, mount, type Route } from "./http/route";

/** The application without a port: what tests drive and what main listens with. */
export function createApp(
  context: AppContext & { readonly webFolder?: string; readonly servedAt?: ServedAt },
): Express {
  const app = express();
  app.disable("x-powered-by");
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
      strictTransportSecurity: false,
    }),
  );
  app.use(
    pinoHttp({ logger: context.logger, autoLogging: false, serializers: logSerializers, wrapSerializers: false }),
  );
  app.use("/api", keptNowhere);
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
    healthRoute(context),
    ...houseRuleRoutes(context),
    ...instrumentStreamRoutes(context),
    ...instrumentRoutes(context),
    ...jobRoutes(),
    ...paperRoutes(context),
    ...orderRoutes(),
    ...peopleRoutes(),
    ...photoRoutes(context),
    ...planRoutes(),
    ...practiceRoutes(context),
    ...bundleRoutes(context),
    ...comebackRoutes(),
    ...customerRoutes(context),
    ...labelRoutes(context),
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

/** Whether database and server answer: asked over a connection that nobody else waits for. */
const healthRoute = ({ database }: AppContext): Route =>
  live({
    method: "get",
    path: routes.health,
    right: "read",
    live: async (_request, response) => {
      await database.probe();
      response.json({ status: "ok" });
    },
  });

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
  app.use(express.static(webFolder, { index: false }));
  app.get("/{*path}", (_request, response) => {
    response.set("Cache-Control", "no-cache").sendFile(join(webFolder, "index.html"));
  });
}
