import { pageClock } from "../api/clock";
import { newId } from "../api/newId";
import type { NewFact } from "../outbox/fact";

/** That the mains was connected to a unit, or taken off, by a source that this page switched. */
export const mainsFact = (jobId: string, isOn: boolean, personId: string | null): NewFact => ({
  kind: "charge",
  jobId,
  body: {
    id: newId(),
    storeId: null,
    kind: isOn ? "mains_connected" : "mains_disconnected",
    volts: null,
    resistanceOhms: null,
    drainItem: null,
    isMeterProved: false,
    at: pageClock.moment(),
    personId,
  },
});
