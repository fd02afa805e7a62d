import { pageClock } from "../api/clock";
import { store } from "../app/store/store";
import { copiedEndpoints, keepOfflineCopy, keepOnly } from "./offlineCopies";

const restMilliseconds = 800;

/** Keeps a copy of what the page shows of the open jobs, soon after each change. */
export function copyOpenJobs(): void {
  const kept = new Map<string, unknown>();
  let isComing = false;
  store.subscribe(() => {
    // Instruments tell something all the time: waiting until nothing changes could mean for ever.
    if (isComing) return;
    isComing = true;
    setTimeout(() => {
      isComing = false;
      void copy(kept);
    }, restMilliseconds);
  });
}

async function copy(kept: Map<string, unknown>): Promise<void> {
  const { api, workplace } = store.getState();
  const isOpen = (key: string) =>
    !/^(job|boardTypeOfJob)\(/.test(key) || workplace.openJobIds.some((id) => key.includes(id));
  for (const [key, query] of Object.entries(api.queries)) {
    if (!query || query.data === undefined || kept.get(key) === query.data) continue;
    const endpoint = query.endpointName ?? "";
    if (!copiedEndpoints.includes(endpoint) || !isOpen(key)) continue;
    kept.set(key, query.data);
    await keepOfflineCopy(key, endpoint, query.data, pageClock.serverNow());
  }
  if ([...kept.keys()].some((key) => !isOpen(key))) {
    for (const key of [...kept.keys()]) if (!isOpen(key)) kept.delete(key);
    await keepOnly(isOpen);
  }
}
