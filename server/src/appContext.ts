import type { Logger } from "pino";
import type { Database } from "./database/database";

/** What every feature is given. */
export interface AppContext {
  readonly database: Database;
  readonly logger: Logger;
  readonly now: () => Date;
}
