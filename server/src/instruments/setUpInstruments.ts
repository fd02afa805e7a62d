import type { AppContext } from "../appContext";
import { loadInstruments } from "../records/loadInstruments";
import { loadRuleValues } from "../records/rules";

/** Brings the instruments' lines in step with how the shop set them up, and with where the house rule lets them stand. */
export async function setUpInstruments({
  database,
  instruments,
  now,
}: Pick<AppContext, "database" | "instruments" | "now">): Promise<void> {
  const setUp = await database.read(now(), async (scope) => ({
    all: await loadInstruments(scope),
    addresses: (await loadRuleValues(scope))["instruments.addresses"],
  }));
  await instruments.want(setUp.all.filter((one) => one.isEnabled).map((one) => one.id));
  instruments.setUp(setUp.all, setUp.addresses);
}
