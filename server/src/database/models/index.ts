import type { Sequelize } from "sequelize";
import { acceptedWrites } from "./acceptedWrites";
import { boards } from "./boards";
import { catalogueParts } from "./catalogueParts";
import { chargeEvents } from "./chargeEvents";
import { customers } from "./customers";
import { energyStores } from "./energyStores";
import { fittedParts } from "./fittedParts";
import { houseRuleChanges } from "./houseRuleChanges";
import { jobCustomers } from "./jobCustomers";
import { jobs } from "./jobs";
import { judgementSnapshots } from "./judgementSnapshots";
import { nets } from "./nets";
import { openPointAcceptances } from "./openPointAcceptances";
import { people } from "./people";
import { positions } from "./positions";
import { readings } from "./readings";
import { replacementPlans } from "./replacementPlans";
import { reworkTicks } from "./reworkTicks";
import { signObservations } from "./signObservations";

const definitions = {
  acceptedWrites,
  boards,
  catalogueParts,
  chargeEvents,
  customers,
  energyStores,
  fittedParts,
  houseRuleChanges,
  jobCustomers,
  jobs,
  judgementSnapshots,
  nets,
  openPointAcceptances,
  people,
  positions,
  readings,
  replacementPlans,
  reworkTicks,
  signObservations,
} as const;

export type Models = { readonly [K in keyof typeof definitions]: ReturnType<(typeof definitions)[K]> };

/** All tables, defined on one connection. */
export function defineModels(sequelize: Sequelize): Models {
  const entries = Object.entries(definitions).map(([name, define]) => [name, define(sequelize)]);
  return Object.fromEntries(entries) as Models;
}
