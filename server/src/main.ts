import { benchBasePort } from "@pale-cap/contract";
import { startServer } from "./startServer";

/** The server alone, from environment: what `npm run dev` restarts on every change. */
const { DATABASE_URL, DATABASE_OWNER_URL, PORT, PALE_CAP_DEMO, BENCH_PORT, FRONT_PORT, BACKUP_FOLDER } = process.env;
if (!DATABASE_URL) throw new Error("DATABASE_URL is not set; `npm start` and `npm run dev` set it.");
const starting = startServer({
  databaseUrl: DATABASE_URL,
  ownerUrl: DATABASE_OWNER_URL ?? DATABASE_URL,
  port: Number(PORT ?? 4780),
  benchPort: Number(BENCH_PORT ?? benchBasePort),
  withDemo: PALE_CAP_DEMO !== "none",
  backupFolder: BACKUP_FOLDER ?? null,
  frontPorts: FRONT_PORT ? [Number(FRONT_PORT)] : [],
});
// Heard from the beginning: also what ends while it starts gives back the lines that it took.
for (const signal of ["SIGINT", "SIGTERM"] as const) {
  process.once(signal, () => void starting.then((server) => server.close()).finally(() => process.exit(0)));
}
await starting;
