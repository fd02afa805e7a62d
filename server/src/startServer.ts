import { fileURLToPath } from "node:url";
import { pino } from "pino";
import { createApp } from "./app";
import { openDatabase } from "./database/database";
import { loadDemoShop } from "./database/demo/loadDemoShop";
import { InstrumentHub } from "./instruments/instrumentHub";
import { loadInstruments } from "./records/loadInstruments";

export interface RunningServer {
  readonly address: string;
  close(): Promise<void>;
}

/** Migrates, loads the demo shop into an empty database, and listens on loopback. */
export async function startServer(environment: {
  readonly databaseUrl: string;
  readonly port: number;
  readonly withDemo: boolean;
  /** Where the simulated bench listens. */
  readonly benchPort: number;
}): Promise<RunningServer> {
  const logger = pino({ level: process.env.LOG_LEVEL ?? "warn" });
  const database = openDatabase(environment.databaseUrl);
  const now = () => new Date();
  try {
    await database.migrate();
    if (environment.withDemo) await loadDemoShop(database, now());
  } catch (error) {
    await database.close();
    throw error;
  }
  const webFolder = fileURLToPath(new URL("../../web/dist", import.meta.url));
  const instruments = new InstrumentHub(environment.benchPort, now);
  instruments.setUp(await loadInstruments(database));
  const app = createApp({ database, instruments, logger, now, webFolder });
  const server = await new Promise<ReturnType<typeof app.listen>>((resolve, reject) => {
    const listening = app.listen(environment.port, "127.0.0.1", (error?: Error) =>
      error ? reject(error) : resolve(listening),
    );
  });
  const address = server.address();
  const port = typeof address === "object" && address ? address.port : environment.port;
  return {
    address: `http://127.0.0.1:${port}`,
    close: async () => {
      instruments.close();
      const closed = new Promise<void>((resolve) => server.close(() => resolve()));
      server.closeAllConnections();
      await closed;
      await database.close();
    },
  };
}
