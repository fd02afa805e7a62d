import { parentPort, workerData } from "node:worker_threads";
import * as Comlink from "comlink";
import nodeEndpoint from "comlink/dist/esm/node-adapter.mjs";
import { openDatabase } from "../database/database";
import { localHeavyWork } from "./localHeavyWork";

/** The thread that judges and folds, on two connections of its own. */
const { databaseUrl } = workerData as { readonly databaseUrl: string };
if (!parentPort) throw new Error("This module runs as a worker.");
const database = openDatabase(databaseUrl, 2);
const work = localHeavyWork(database, () => new Date());
Comlink.expose({ ...work, close: () => work.close().then(() => database.close()) }, nodeEndpoint(parentPort));
work.poke();
