import {
  foldHouseRules,
  type HouseRuleChange,
  houseRuleChangeSchema,
  routes,
  ruleVersion,
  type ToldRuleChange,
} from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import { audit } from "../../audit/audit";
import type { HouseRuleChangeRow } from "../../database/models/houseRuleChanges";
import { HttpProblem } from "../../http/problems";
import { type Route, read, write } from "../../http/route";
import { setUpInstruments } from "../../instruments/setUpInstruments";
import { factMoment } from "../../records/facts";
import { toWire } from "../../records/loadJobs";
import { loadRuleChanges } from "../../records/rules";
import { markOpenJobsStale } from "../../summaries/markStale";

/** The rules in force, their history, and changing one: append-only, a change back is a change too. */
export const houseRuleRoutes = (context: AppContext): readonly Route[] => [
  read({
    path: routes.houseRules,
    right: "read",
    read: async (scope) => foldHouseRules(await loadRuleChanges(scope)),
  }),
  read({
    path: routes.houseRuleChanges,
    right: "read",
    read: async (scope) => (await loadRuleChanges(scope)).map(told),
  }),
  write({
    method: "post",
    path: routes.houseRuleChanges,
    kind: "house-rule",
    right: "change_rules",
    creates: true,
    schema: houseRuleChangeSchema,
    prepare: ({ body }) => context.heavy.ruleEffects(body as HouseRuleChange),
    write: async (scope, { body }, effects) => {
      const { version, clockId, changedAt, ...change } = body as HouseRuleChange;
      const current = ruleVersion(await loadRuleChanges(scope), change.key);
      if (current !== version) {
        throw new HttpProblem("stale_version", "Somebody changed this rule in the meantime. Nothing was overwritten.", {
          current: { version: current },
        });
      }
      const { cameAfterClosing: _, ...moment } = await factMoment(scope, clockId);
      await scope.rows.houseRuleChanges.insert({ ...change, ...moment, changedAt: new Date(changedAt), effects });
      await audit(scope, "rule_changed", {
        subject: change.key,
        details: { value: change.value, reason: change.reason },
      });
      await markOpenJobsStale(scope);
    },
    answer: async (scope, { body }) => {
      const row = await scope.rows.houseRuleChanges.first({ id: body.id });
      return row && told(row);
    },
    after: () => setUpInstruments(context),
  }),
];

function told({ cameAfterClosing: _, ...row }: HouseRuleChangeRow): ToldRuleChange {
  return toWire<ToldRuleChange>(row);
}
