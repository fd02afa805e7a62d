import {
  foldHouseRules,
  type HouseRuleChange,
  houseRuleChangeSchema,
  routes,
  type ToldRuleChange,
} from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import type { AppContext } from "../../appContext";
import { writeOnce } from "../../http/idempotency";
import { parseBody } from "../../http/validate";
import { loadRuleChanges } from "../../records/ruleChanges";
import { ruleEffects } from "../../records/ruleEffects";

/** The rules in force, their history, and changing one: append-only, a change back is a change too. */
export function houseRuleRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();

  router.get(routes.houseRules, async (_request, response) => {
    response.json(foldHouseRules(await loadRuleChanges(database)));
  });

  router.get(routes.houseRuleChanges, async (_request, response) => {
    response.json(await loadRuleChanges(database));
  });

  router.post(routes.houseRuleChanges, async (request, response) => {
    const body = parseBody(houseRuleChangeSchema, request.body) as HouseRuleChange;
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: "house-rule", body },
      async (transaction) => {
        const effects = await ruleEffects(database, await loadRuleChanges(database), body, transaction);
        const row = { ...body, changedAt: new Date(body.changedAt), effects };
        await database.models.houseRuleChanges.create(row, { transaction });
        return { ...body, effects };
      },
      async (transaction) => {
        const row = await database.models.houseRuleChanges.findByPk(body.id, { transaction, raw: true });
        return { ...body, effects: (row as unknown as ToldRuleChange).effects };
      },
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  return router;
}
