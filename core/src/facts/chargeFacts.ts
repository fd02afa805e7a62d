import type { LoggedFact } from "../readings/factMoment";
import type { DrainKitItem } from "./drainKit";
/** What kind of thing holds the charge. */
export const storeKinds = ["bulk", "pfc_bulk", "series_pair", "x_capacitor", "output_bank", "other"] as const;
export type StoreKind = (typeof storeKinds)[number];

/** What was logged about stored energy. `storeId` null: the whole unit. */
export interface ChargeEvent extends LoggedFact {
  readonly kind: "mains_connected" | "mains_disconnected" | "live_reading" | "drain_started" | "voltage_measured";
  readonly storeId: string | null;
  /** Measured voltage, with kind voltage_measured. */
  readonly volts: number | null;
  /** The meter was proved on a known source before and after the reading. */
  readonly isMeterProved: boolean;
  /** Drain path, with kind drain_started. */
  readonly resistanceOhms: number | null;
  /** The named part of the shop's kit, with kind drain_started; null: a plain resistance. */
  readonly drainItem: DrainKitItem | null;
}

/** Something that holds charge once the mains is off. */
export interface EnergyStore {
  readonly id: string;
  readonly name: string;
  readonly kind: StoreKind;
  /** The part that holds it, or the net of a bank. */
  readonly positionId: string | null;
  readonly netId: string | null;
  /** Fixed resistor across it; null where none is known. */
  readonly bleederOhms: number | null;
  readonly capacitanceFarads: number | null;
  readonly expectedVolts: number | null;
}
