import { randomUUID } from "node:crypto";
import type { JobDetail } from "@pale-cap/contract";
import type { Browser } from "./browser";
import type { ServerUnderTest } from "./server";

/** The job that the page shows. */
export async function jobIdOf(browser: Browser): Promise<string> {
  const id = /\/jobs\/([0-9a-f-]{36})/.exec(await browser.driver.getCurrentUrl())?.[1];
  if (!id) throw new Error("The page shows no job.");
  return id;
}

/**
 * A low reading of a proved meter at a store, taken by another bench so long ago: no test waits out the minute that the
 * second reading has to come after.
 */
export async function readBefore(
  server: ServerUnderTest,
  jobId: string,
  read: { readonly volts: number; readonly secondsAgo: number; readonly store?: string },
): Promise<void> {
  const clockId = randomUUID();
  const api = `${server.address}/api/jobs/${jobId}`;
  const { energyStores } = (await (await fetch(api)).json()) as JobDetail;
  const store = energyStores.find((one) => read.store === undefined || one.name === read.store);
  if (!store) throw new Error("No such store on the job.");
  const answer = await fetch(`${api}/charge-events`, {
    method: "POST",
    headers: { "content-type": "application/json", "x-clock-id": clockId, "x-sent-at": String(Date.now()) },
    body: JSON.stringify({
      ...{ id: randomUUID(), storeId: store.id, kind: "voltage_measured", volts: read.volts, resistanceOhms: null },
      ...{ drainItem: null, isMeterProved: true, at: new Date(Date.now() - read.secondsAgo * 1000).toISOString() },
      ...{ clockId, personId: null },
    }),
  });
  if (answer.status !== 201) throw new Error(`The reading was refused: ${await answer.text()}`);
}
