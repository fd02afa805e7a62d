import type { InferType } from "yup";
import { strictObject, wordField } from "../fields/fields";

/** What a database holds: a shop's own jobs, or the demo's invented ones. */
const shopRealms = ["shop", "demo"] as const;

/** Which world is open, and whether the other one can be opened from here. */
export interface ShopState {
  readonly realm: (typeof shopRealms)[number];
  readonly canOpenOther: boolean;
}

export const openShopSchema = strictObject({ realm: wordField(shopRealms) });
export type OpenShop = InferType<typeof openShopSchema>;

/** Whether a server process can work. */
export interface Readiness {
  readonly status: "ready" | "not ready";
  readonly checks: {
    readonly database: "ok" | "away";
    readonly migrations: "ok" | "pending";
    readonly disk: "ok" | "nearly full" | "unknown";
    readonly stopping: "ok" | "stopping";
  };
}
