import { foldHouseRules, routes } from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import type { AppContext } from "../../appContext";
import type { Database } from "../../database/database";

/** What the shop changed, oldest first. */
export async function loadRuleChanges(database: Database): Promise<{ key: string; value: unknown }[]> {
  const rows = await database.models.houseRuleChanges.findAll({ order: [["changedAt", "ASC"]], raw: true });
  return rows as unknown as { key: string; value: unknown }[];
}

export function houseRuleRoutes({ database }: AppContext): ExpressRouter {
  const router = Router();
  router.get(routes.houseRules, async (_request, response) => {
    response.json(foldHouseRules(await loadRuleChanges(database)));
  });
  return router;
}
