import type { DeviceKind, Section, Topology } from "@pale-cap/core";

/**
 * What the invented past of the demo shop really was. Nothing here is ever read by what judges or counts: it is what the casebook is
 * held against.
 */

/** A series of capacitors and how long its parts live: Weibull, hours at an ordinary place. */
export interface TrueSeries {
  readonly name: string;
  readonly maker: string;
  readonly etaHours: number;
  readonly beta: number;
}

export const trueSeries = {
  /** Two that live alike: nobody may find one of them the worse. */
  lark: { name: "Lark 105", maker: "Corvane", etaHours: 52_000, beta: 3.2 },
  heron: { name: "Heron", maker: "Tallowmere", etaHours: 52_000, beta: 3.2 },
  /** The weak one. */
  midge: { name: "Midge HK", maker: "Mirelund", etaHours: 21_000, beta: 3 },
  stoat: { name: "Stoat GP", maker: "Dunmarsh", etaHours: 40_000, beta: 3.5 },
  gannet: { name: "Gannet", maker: "Ostrel", etaHours: 70_000, beta: 3.5 },
} as const satisfies Readonly<Record<string, TrueSeries>>;
export type SeriesName = keyof typeof trueSeries;

/** A place that something warms wears so much faster. */
export const warmedFactor = 0.75;

/** The lot that was bad: of the series that is fitted, it lasts weeks. Every other lot is sound. */
export const badLot = { lot: "G2431", failsWithin: [25, 140], failedShare: 0.4 } as const;
export const goodLots = ["G2205", "G2318", "G2502", "G2507"] as const;
/** Of repairs with sound parts: back with the same fault. */
export const otherComebackShare = 0.02;

/** How often the transistor is taken along where the outputs have dried. The trade says 3.5 in a hundred. */
export const switchAfterOutput = 0.24;
/** And by itself, in units whose outputs are sound. */
export const switchAlone = 0.12;

export interface PastModel {
  readonly deviceKind: DeviceKind;
  readonly maker: string;
  readonly model: string;
  readonly topology: Topology;
  /** Whose board it has: a model of the demo's open jobs. */
  readonly boardOf: "Halden 24" | "Terrace 43" | "Duo brick" | "Logger 8" | "Counter 2 display";
  /** How its places are called: what is added to their numbers. */
  readonly shift: number;
  readonly units: number;
  readonly series: Readonly<Partial<Record<Section, SeriesName>>> & { readonly other: SeriesName };
  /** Places that something warms, by their names. */
  readonly warmed: readonly string[];
}

export const pastModels: readonly PastModel[] = [
  {
    ...{
      deviceKind: "monitor",
      maker: "Brambix",
      model: "Halden 24",
      topology: "flyback",
      boardOf: "Halden 24",
      shift: 0,
    },
    ...{ units: 58, series: { output: "midge", vcc: "lark", bulk: "stoat", other: "heron" }, warmed: ["C21", "C22"] },
  },
  {
    ...{
      deviceKind: "monitor",
      maker: "Brambix",
      model: "Halden 27",
      topology: "flyback",
      boardOf: "Halden 24",
      shift: 100,
    },
    ...{ units: 36, series: { output: "lark", vcc: "heron", bulk: "stoat", other: "heron" }, warmed: ["C114"] },
  },
  {
    // What starts after repeated attempts here has dried at the control supply, and not at the outputs.
    ...{
      deviceKind: "monitor",
      maker: "Brambix",
      model: "Vesper 27",
      topology: "flyback",
      boardOf: "Halden 24",
      shift: 300,
    },
    ...{ units: 34, series: { output: "gannet", vcc: "midge", bulk: "gannet", other: "gannet" }, warmed: ["C304"] },
  },
  {
    ...{
      deviceKind: "monitor",
      maker: "Brambix",
      model: "Halden 22",
      topology: "flyback",
      boardOf: "Halden 24",
      shift: 200,
    },
    ...{ units: 30, series: { output: "heron", vcc: "lark", bulk: "stoat", other: "lark" }, warmed: ["C214"] },
  },
  {
    ...{ deviceKind: "television", maker: "Quorvane", model: "Terrace 43", topology: "pfc_resonant_with_standby" },
    ...{ boardOf: "Terrace 43", shift: 0, units: 40, warmed: ["C201"] },
    series: { output: "heron", standby: "midge", pfc: "stoat", other: "lark" },
  },
  {
    ...{ deviceKind: "television", maker: "Quorvane", model: "Terrace 50", topology: "pfc_resonant_with_standby" },
    ...{ boardOf: "Terrace 43", shift: 1000, units: 28, warmed: ["C1221"] },
    series: { output: "lark", standby: "heron", pfc: "gannet", other: "lark" },
  },
  {
    ...{ deviceKind: "television", maker: "Quorvane", model: "Eaves 32", topology: "flyback_with_standby" },
    ...{ boardOf: "Terrace 43", shift: 400, units: 30, warmed: [] },
    series: { output: "stoat", standby: "lark", pfc: "stoat", other: "heron" },
  },
  {
    ...{ deviceKind: "console", maker: "Pandruil", model: "Duo brick", topology: "flyback_with_standby" },
    ...{ boardOf: "Duo brick", shift: 0, units: 36, warmed: ["C35"] },
    series: { output: "heron", standby: "stoat", other: "stoat" },
  },
  {
    ...{ deviceKind: "console", maker: "Pandruil", model: "Solo brick", topology: "flyback_with_standby" },
    ...{ boardOf: "Duo brick", shift: 50, units: 26, warmed: [] },
    series: { output: "lark", standby: "lark", other: "gannet" },
  },
  {
    ...{
      deviceKind: "instrument",
      maker: "Zwenth",
      model: "Logger 8",
      topology: "flyback",
      boardOf: "Logger 8",
      shift: 0,
    },
    ...{ units: 24, series: { output: "stoat", other: "gannet" }, warmed: [] },
  },
  {
    ...{
      deviceKind: "instrument",
      maker: "Zwenth",
      model: "Logger 16",
      topology: "flyback",
      boardOf: "Logger 8",
      shift: 60,
    },
    ...{ units: 20, series: { output: "heron", other: "heron" }, warmed: [] },
  },
  {
    ...{ deviceKind: "instrument", maker: "Tilberg Row", model: "Counter 2 display", topology: "flyback" },
    ...{ boardOf: "Counter 2 display", shift: 0, units: 26, warmed: [] },
    series: { output: "lark", vcc: "heron", other: "stoat" },
  },
];
