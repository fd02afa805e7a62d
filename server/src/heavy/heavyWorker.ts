import { parentPort, workerData } from "node:worker_threads";
import type { Realm } from "@pale-cap/contract";
import * as Comlink from "comlink";
import nodeEndpoint from "comlink/dist/esm/node-adapter.mjs";
import { openDatabase } from "../database/database";
import { localHeavyWork } from "./localHeavyWork";

/** The thread that judges and folds, on two connections of its own. */
const { databaseUrl, realm } = workerData as { readonly databaseUrl: string; readonly realm: Realm };
if (!parentPort) throw new Error("This module runs as a worker.");
const database = openDatabase(databaseUrl, realm, 2);
const work = localHeavyWork(database, () => new Date());
Comlink.expose({ ...work, close: () => work.close().then(() => database.close()) }, nodeEndpoint(parentPort));
work.poke();
