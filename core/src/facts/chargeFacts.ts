import type { LoggedFact } from "../readings/factMoment";
import type { DrainKitItem } from "./drainKit";
/** What kind of thing holds the charge. */
export const storeKinds = [
  "bulk",
  "pfc_bulk",
  /** One of two in series: each is charged and drained by itself. */
  "series_half",
  /** Both at once, as older jobs named them: a reading across the two clears neither. */
  "series_pair",
  "x_capacitor",
  "output_bank",
  "other",
] as const;
export type StoreKind = (typeof storeKinds)[number];

/** What is logged about stored charge. */
export const chargeEventKinds = [
  "mains_connected",
  "mains_disconnected",
  "live_reading",
  /** A bulk fed from a d.c. supply: what it holds is unknown afterwards, as after the mains. */
  "dc_fed",
  /** A test with hundreds of volts: it leaves charge where nobody looked. */
  "insulation_test",
  "drain_started",
  "drain_removed",
  "voltage_measured",
] as const;

/** On which side of the fuse the line was read: one reading does not tell of both. */
export const lineSides = ["plug", "behind_fuse"] as const;
export type LineSide = (typeof lineSides)[number];

/** What was logged about stored energy. `storeId` null: the whole unit. */
export interface ChargeEvent extends LoggedFact {
  readonly kind: (typeof chargeEventKinds)[number];
  readonly storeId: string | null;
  /** Measured voltage, with kind voltage_measured. */
  readonly volts: number | null;
  /** The meter was proved on a known source before and after the reading. */
  readonly isMeterProved: boolean;
  /** The drain hung on the store while it was read, and was left there. */
  readonly isDrainOn: boolean;
  /** Where the line was read, with voltage_measured on an X capacitor. */
  readonly lineSide: LineSide | null;
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
