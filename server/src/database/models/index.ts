import type { Sequelize } from "sequelize";
import { acceptedWrites } from "./acceptedWrites";
import { auditEvents } from "./auditEvents";
import { benches } from "./benches";
import { blobChunks } from "./blobChunks";
import { blobs } from "./blobs";
import { boards } from "./boards";
import { boardTypeAttachments } from "./boardTypeAttachments";
import { boardTypeRevisions } from "./boardTypeRevisions";
import { boardTypes } from "./boardTypes";
import { captures } from "./captures";
import { catalogueComponents } from "./catalogueComponents";
import { catalogueImports } from "./catalogueImports";
import { catalogueParts } from "./catalogueParts";
import { chargeEvents } from "./chargeEvents";
import { clocks } from "./clocks";
import { closedFindings } from "./closedFindings";
import { closedJobs } from "./closedJobs";
import { customers } from "./customers";
import { energyStores } from "./energyStores";
import { fittedParts } from "./fittedParts";
import { houseRuleChanges } from "./houseRuleChanges";
import { instruments } from "./instruments";
import { jobActs } from "./jobActs";
import { jobClosings } from "./jobClosings";
import { jobCustomers } from "./jobCustomers";
import { jobFamilies } from "./jobFamilies";
import { jobSummaries } from "./jobSummaries";
import { jobs } from "./jobs";
import { judgementSnapshots } from "./judgementSnapshots";
import { lotChecks } from "./lotChecks";
import { nets } from "./nets";
import { offers } from "./offers";
import { openPointAcceptances } from "./openPointAcceptances";
import { orderLines } from "./orderLines";
import { orders } from "./orders";
import { people } from "./people";
import { photos } from "./photos";
import { positions } from "./positions";
import { powerEvents } from "./powerEvents";
import { practiceActs, practiceEvents, practiceLists, practiceResults, practiceSupplies } from "./practice";
import { proofRunEvents, proofRuns } from "./proofRuns";
import { quoteAnswers, quotes } from "./quotes";
import { readings } from "./readings";
import { replacementPlans } from "./replacementPlans";
import { reportDocuments, reportFiles, reports } from "./reports";
import { reworkTicks } from "./reworkTicks";
import { signObservations } from "./signObservations";
import { stockActs } from "./stockActs";
import { stockItems } from "./stockItems";
import { stockMovements } from "./stockMovements";
import { suppliers } from "./suppliers";
import { teardownReturns } from "./teardownReturns";
import { teardownSteps } from "./teardownSteps";
import { verdictOverrules } from "./verdictOverrules";

const definitions = {
  catalogueComponents,
  catalogueImports,
  benches,
  proofRunEvents,
  proofRuns,
  quoteAnswers,
  quotes,
  lotChecks,
  offers,
  orderLines,
  orders,
  stockActs,
  stockMovements,
  suppliers,
  acceptedWrites,
  jobSummaries,
  jobClosings,
  clocks,
  closedFindings,
  closedJobs,
  auditEvents,
  blobChunks,
  blobs,
  jobFamilies,
  photos,
  jobActs,
  powerEvents,
  stockItems,
  teardownReturns,
  teardownSteps,
  boardTypeAttachments,
  boardTypeRevisions,
  boardTypes,
  boards,
  captures,
  catalogueParts,
  chargeEvents,
  customers,
  energyStores,
  fittedParts,
  houseRuleChanges,
  instruments,
  jobCustomers,
  jobs,
  judgementSnapshots,
  nets,
  openPointAcceptances,
  people,
  positions,
  practiceActs,
  practiceEvents,
  practiceLists,
  practiceResults,
  practiceSupplies,
  readings,
  replacementPlans,
  reportDocuments,
  reportFiles,
  reports,
  reworkTicks,
  signObservations,
  verdictOverrules,
} as const;

export type Models = { readonly [K in keyof typeof definitions]: ReturnType<(typeof definitions)[K]> };

/** All tables, defined on one connection. */
export function defineModels(sequelize: Sequelize): Models {
  const entries = Object.entries(definitions).map(([name, define]) => [name, define(sequelize)]);
  return Object.fromEntries(entries) as Models;
}
