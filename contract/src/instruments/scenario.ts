import {
  type CapacitorClass,
  capacitorClasses,
  type Section,
  sections,
  type Topology,
  topologies,
} from "@pale-cap/core";
import type { InferType } from "yup";
import {
  array,
  boolean,
  finiteNumber,
  mixed,
  nullableBetween,
  nullablePositive,
  nullableText,
  number,
  object,
  strictObject,
  textField,
  wordField,
} from "../fields/fields";

const positive = (most: number) => finiteNumber().moreThan(0).max(most).required();
const nodeField = () => textField(40);

/** A net of the virtual supply; every one has the ground of its side as return. */
const scenarioNetSchema = strictObject({
  name: nodeField(),
  section: wordField<Section>(sections),
  nominalVolts: nullableBetween(0, 1000),
  fullLoadAmps: nullablePositive(200),
  /** Leads, diode and winding: volts lost for each ampere. */
  outputOhms: finiteNumber().min(0).max(10).required(),
  /** What the board itself draws from it. */
  idleAmps: finiteNumber().min(0).max(50).required(),
  /** Loads and dividers, as an ohmmeter sees them. */
  boardOhms: nullablePositive(1e8),
  /** Fed through a choke from another net: the second bank of its filter. */
  behind: nullableText(40),
  /** Above it the output gives way, and a tenth further on the supply gives up and tries again. */
  currentLimitAmps: nullablePositive(300).optional(),
  /** Where the regulation loop crosses over, and where its integrator sets in: how a step of load dips and recovers. */
  loop: strictObject({
    crossoverHertz: positive(500e3),
    integratorHertz: positive(100e3),
    /** Below so much ESR of its bank it swings by itself. */
    leastEsrOhms: nullablePositive(1).optional(),
  })
    .nullable()
    .optional(),
});

/** How a part goes, by the physics of its foil. */
export const capacitorFates = ["new", "dry", "heat", "tab", "leak", "open", "short"] as const;
export type CapacitorFate = (typeof capacitorFates)[number];

const scenarioCapacitorSchema = strictObject({
  at: textField(12),
  net: nodeField(),
  /** As printed: microfarads, volts, degrees Celsius. */
  marking: array().of(finiteNumber().moreThan(0).required()).length(3).required(),
  capacitorClass: wordField<CapacitorClass>(capacitorClasses),
  /** Diameter, height, pitch in millimetres. */
  can: array().of(finiteNumber().moreThan(0).required()).length(3).required(),
  /** Middle on the board in millimetres. */
  place: array().of(finiteNumber().min(0).required()).length(2).required(),
  /** The truth, as ratios to what a new part of the kind has. */
  capacitanceRatio: positive(2),
  esrRatio: positive(10_000),
  leakageOhms: nullablePositive(1e9),
  /** Kelvin above the board at full load, from what sits beside it. */
  nearbyHeatKelvin: finiteNumber().min(0).max(100).required(),
  /** What the eye finds. */
  looks: nullableText(80),
  /**
   * Its truth as a foil; it stands in for the ratios. The amount: share of the foil that is wet (dry), times the paper's ohms
   * (heat) or the tab's (tab), ohms of the leak (leak, short); and how its series stands beside a usual one.
   */
  fate: strictObject({
    mode: wordField<CapacitorFate>(capacitorFates),
    amount: finiteNumber().min(0).max(1e9).required(),
    seriesRatio: positive(4),
  })
    .nullable()
    .optional(),
});

const semiconductorKinds = [
  "fuse",
  "ntc",
  "bridge",
  "diode",
  "schottky",
  "transistor",
  "resistor",
  "choke",
  "ic",
  "optocoupler",
  "varistor",
  "film",
  "connector",
  "regulator",
] as const;
/** What a part does where its kind alone does not tell. */
export const scenarioRoles = [
  "main",
  "boost",
  "standby",
  "start",
  "gate",
  "bleeder",
  "feedback",
  "regulator",
  "synchronous",
  "glue",
] as const;
export type ScenarioRole = (typeof scenarioRoles)[number];
export type ScenarioDeviceKind = (typeof semiconductorKinds)[number];

/** Every other part: pins to nodes, its value where it has one, and what is wrong with it. */
const scenarioDeviceSchema = strictObject({
  at: textField(12),
  kind: wordField<ScenarioDeviceKind>(semiconductorKinds),
  pins: object().required(),
  ohms: nullablePositive(1e9),
  henrys: nullablePositive(10),
  condition: wordField(["good", "shorted", "open"] as const),
  place: array().of(finiteNumber().min(0).required()).length(2).required(),
  outline: array().of(finiteNumber().moreThan(0).required()).length(2).required(),
  role: wordField<ScenarioRole>(scenarioRoles).optional(),
  /** The net at which it is entered. */
  net: nullableText(40).optional(),
  looks: nullableText(80).optional(),
  /** A joint or contact that opens by itself: in which path (`mains` or a net), and when. */
  weak: strictObject({ path: nodeField(), opens: wordField(["always", "cold", "warm", "handled"] as const) })
    .nullable()
    .optional(),
});

/** One faulty (or healthy) supply behind the simulated instruments. Described in docs/formats/scenario.md. */
export const scenarioSchema = strictObject({
  name: textField(40).matches(/^[a-z0-9-]+$/, "may hold small letters, digits and dashes"),
  title: textField(80),
  complaint: textField(300),
  seed: number().integer().min(1).required(),
  topology: wordField(["flyback", "forward", "half_bridge", "resonant", "buck"] as const),
  /** As the fault knowledge calls it; absent: by the shape alone. */
  builtAs: wordField<Topology>(topologies).optional(),
  /** The bulk is two halves in a row, each charged in its half of the cycle. */
  isDoubler: boolean().optional(),
  board: strictObject({
    widthMillimetres: positive(1000),
    depthMillimetres: positive(1000),
    barrierMillimetres: positive(1000),
  }),
  mains: strictObject({ voltsRms: positive(300), hertz: positive(70), sourceOhms: positive(50) }),
  switchingHertz: positive(500e3),
  pfcVolts: nullablePositive(450),
  control: strictObject({
    net: nodeField(),
    startOhms: positive(10e6),
    startVolts: positive(40),
    stopVolts: positive(40),
    runningVolts: positive(40),
    operatingAmps: positive(1),
    quiescentAmps: positive(0.1),
    takeoverSeconds: positive(1),
  }),
  dropoutBulkVolts: positive(400),
  efficiencyRatio: positive(1),
  idleWatts: positive(50),
  thermal: strictObject({
    ambientCelsius: finiteNumber().min(-20).max(60).required(),
    timeConstantSeconds: positive(7200),
    /** What warms in its own time: a sink, a transformer, a part on one. */
    masses: array()
      .of(
        strictObject({
          at: textField(12),
          kelvinAtFullLoad: finiteNumber().min(0).max(200).required(),
          timeConstantSeconds: positive(7200),
        }).required(),
      )
      .max(20)
      .optional(),
  }),
  nets: array().of(scenarioNetSchema.required()).min(3).max(20).required(),
  capacitors: array().of(scenarioCapacitorSchema.required()).min(2).max(60).required(),
  devices: array().of(scenarioDeviceSchema.required()).max(60).required(),
  /** What the person in front of it would learn at the end. */
  answer: mixed<string>().required(),
});

export type ScenarioNet = InferType<typeof scenarioNetSchema>;
export type ScenarioCapacitor = InferType<typeof scenarioCapacitorSchema>;
export type ScenarioDevice = Omit<InferType<typeof scenarioDeviceSchema>, "pins"> & {
  readonly pins: Readonly<Record<string, string>>;
};
export type Scenario = Omit<InferType<typeof scenarioSchema>, "devices"> & {
  readonly devices: readonly ScenarioDevice[];
};

/** Nodes that every supply has. */
export const hotGround = "hot ground";
export const coldGround = "cold ground";
/** Between the halves of a doubler's bulk. */
export const bulkMiddle = "bulk middle";
