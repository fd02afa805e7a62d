import { statfs } from "node:fs/promises";
import { type Readiness, routes } from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import { live, type Route } from "../../http/route";

/** With less the database may soon have no room to write in: somebody has to make some. */
const leastFreeBytes = 250_000_000;

/** Whether the process lives; and whether it can work: database, its steps, disk. Both are for anybody: they tell nothing of the shop. */
export function healthRoutes({ database, migrationsPending, backupFolder, underWay }: AppContext): readonly Route[] {
  return [
    live({
      method: "get",
      path: routes.health,
      right: "anybody",
      live: (_request, response) => {
        response.json({ status: "alive" });
      },
    }),
    live({
      method: "get",
      path: routes.ready,
      right: "anybody",
      live: async (_request, response) => {
        const checks: Readiness["checks"] = {
          database: await database.probe().then(
            () => "ok" as const,
            () => "away" as const,
          ),
          migrations: (await migrationsPending().catch(() => true)) ? "pending" : "ok",
          disk: await diskOf(backupFolder),
          stopping: underWay.stops ? "stopping" : "ok",
        };
        const isReady = Object.values(checks).every((one) => one === "ok" || one === "unknown");
        response
          .status(isReady ? 200 : 503)
          .json({ status: isReady ? "ready" : "not ready", checks } satisfies Readiness);
      },
    }),
  ];
}

export const diskState = (freeBytes: number) => (freeBytes < leastFreeBytes ? "nearly full" : "ok");

/** Where this shop's data lies on this machine; a database elsewhere has a disk of its own. */
async function diskOf(folder: string | null): Promise<Readiness["checks"]["disk"]> {
  if (folder === null) return "unknown";
  try {
    const { bavail, bsize } = await statfs(folder);
    return diskState(bavail * bsize);
  } catch {
    return "unknown";
  }
}
