import type { Logger } from "pino";
import type { Database } from "./database/database";
import type { HeavyWork } from "./heavy/heavyWork";
import type { EventStreams } from "./http/eventStream";
import type { Turns } from "./http/turns";
import type { UnderWay } from "./http/underWay";
import type { InstrumentHub } from "./instruments/instrumentHub";
import type { Changes } from "./live/changes";
import type { Sessions } from "./people/sessions";
import type { PracticeBenches } from "./practice/practiceBenches";
import type { RunKeeper } from "./runs/runKeeper";

/** What every feature is given. */
export interface AppContext {
  readonly database: Database;
  readonly instruments: InstrumentHub;
  /** The simulated benches of practice jobs. */
  readonly practice: PracticeBenches;
  /** What the instruments drive. */
  readonly runs: RunKeeper;
  /** Judging and folding, away from the event loop. */
  readonly heavy: HeavyWork;
  readonly turns: Turns;
  /** What others store, whichever process they speak with. */
  readonly changes: Changes;
  readonly streams: EventStreams;
  /** Who is signed in; null where this runs alone and nobody is. */
  readonly sessions: Sessions | null;
  readonly logger: Logger;
  readonly now: () => Date;
  readonly underWay: UnderWay;
  /** Whether the database lacks steps that this program knows. */
  readonly migrationsPending: () => Promise<boolean>;
  /** Where this shop's backups lie; null where the database is somebody else's. */
  readonly backupFolder: string | null;
  /** Makes the shop or the demo what is open after the next start, which follows by itself; null where that cannot be. */
  readonly openWorld: ((realm: "shop" | "demo") => Promise<void>) | null;
}
