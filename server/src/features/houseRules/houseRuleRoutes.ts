import { foldHouseRules, routes } from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import type { AppContext } from "../../appContext";
import { loadRuleChanges } from "../../records/ruleChanges";

export function houseRuleRoutes({ database }: AppContext): ExpressRouter {
  const router = Router();
  router.get(routes.houseRules, async (_request, response) => {
    response.json(foldHouseRules(await loadRuleChanges(database)));
  });
  return router;
}
