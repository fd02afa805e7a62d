import type { Logger } from "pino";
import type { Database } from "./database/database";
import type { InstrumentHub } from "./instruments/instrumentHub";

/** What every feature is given. */
export interface AppContext {
  readonly database: Database;
  readonly instruments: InstrumentHub;
  readonly logger: Logger;
  readonly now: () => Date;
}
