import { noIntakeDetails, ratingList } from "@pale-cap/contract";
import { capacitor, type DemoClosedJob, type DemoJob, measured, net } from "./demoJob";

/** A rectangle under one flat lid, without a photo beneath. */
const plainBoard = { outline: null, lidZones: [], underlay: null };

const hour = 60;
const day = 24 * hour;

/** A monitor in the middle of choosing parts: one output bank dried out. */
const monitor: DemoJob = {
  minutesAgo: 2 * day,
  person: "Ines",
  intake: {
    deviceKind: "monitor",
    deviceMaker: "Brambix",
    deviceModel: "Halden 24",
    deviceSerial: "BX24-007731",
    deviceAgeYears: 7,
    complaint: "Comes on after several attempts, then the backlight drops out.",
    symptoms: ["repeated_attempts", "backlight_drops_out", "worse_over_months", "drops_after_seconds"],
    symptomNote: "Worse in the morning, better after ten minutes.",
    priceLimitMinor: 8500,
    customerName: "R. Ahlquist",
    customerContact: "by telephone, mornings",
    ownersWords: "I have to press the button ten times.",
    intakeDetails: {
      ...noIntakeDetails,
      asReceived: { outputVolts: null, inputWatts: 4.1, lights: "blue, then none", sound: "faint ticking" },
      supplyChecks: { swap: null, benchFeed: "good", leadAndFuse: "good", rearSwitch: null },
      economics: { labourMinutes: null, partsMinor: null, replacementMinor: 14900 },
      labelPlate: {
        ...noIntakeDetails.labelPlate,
        inputVoltsLow: 100,
        inputVoltsHigh: 240,
        inputAmps: 0.9,
        rails: [
          { name: "16 V", volts: 16, amps: 2.5 },
          { name: "5 V", volts: 5, amps: 2 },
        ],
        temperatureLimitCelsius: 40,
      },
      topology: "flyback",
      purpose: { hoursPerDay: 9, standbyHoursPerDay: 15, ambientCelsius: 26, isEnclosed: true },
    },
  },
  dueInDays: 3,
  board: {
    name: "Halden power board, rev C",
    widthMetres: 0.15,
    depthMetres: 0.104,
    barrierMetres: 0.074,
    lidHeightMetres: 0.028,
    ...plainBoard,
  },
  nets: {
    bulk: net("Bulk", "bulk", 325),
    vcc: net("Vcc", "vcc", 16),
    "16 V": net("16 V", "output", 16, 2.5),
    "16 V post": net("16 V after L3", "output-post", 16, null, { key: "16 V", henrys: 3.3e-6, ohms: 0.018 }),
    "5 V": net("5 V", "output", 5, 2),
    fb: net("Feedback", "feedback", 12),
  },
  capacitors: [
    capacitor("C1", "bulk", [120, 400, 105], [18, 40, 7.5], [25, 38], 90, "gp"),
    capacitor("C4", "vcc", [22, 50, 105], [5, 11, 2], [50, 82], 180),
    capacitor("C14", "16 V", [1000, 25, 105], [10, 20, 5], [98, 33], 270),
    capacitor("C15", "16 V", [1000, 25, 105], [10, 20, 5], [115, 33], 270),
    capacitor("C18", "16 V post", [470, 25, 105], [8, 15, 3.5], [134, 33], 270),
    capacitor("C21", "5 V", [1500, 10, 105], [10, 20, 5], [98, 77], 90),
    capacitor("C22", "5 V", [1500, 10, 105], [10, 20, 5], [115, 77], 90),
    capacitor("C25", "5 V", [330, 16, 105], [6.3, 11, 2.5], [132, 84], 90),
    capacitor("C9", "fb", [1, 50, 105], [5, 11, 2], [88, 89], 0),
  ],
  outlines: [
    ["Q1", "transistor", 37, 15, 27, 9],
    ["D7", "diode", 92, 11, 30, 8],
    ["BR1", "bridge", 7, 57, 15, 10],
    ["F1", "fuse", 5, 82, 17, 7],
    ["RT1", "ntc", 28, 82, 10, 10],
    ["T1", "transformer", 55, 43, 32, 27],
    ["U2", "optocoupler", 69, 82, 11, 7],
    ["L3", "choke", 118, 51, 11, 11],
    ["J2", "connector", 138, 48, 9, 28],
  ],
  stores: [{ name: "Bulk C1", at: "C1", microfarads: 120, volts: 325, drainOhms: 10e3, bleederOhms: 1e6 }],
  hasPhotos: true,
  opening: [
    ["screws", 4, "M3 x 8", "back, under the stand's cover"],
    ["seam", 1, null, "lower edge, clipped, one clip cracked"],
    ["cable", 1, null, "backlight, left, foil over the plug"],
    ["earth_screws", 1, "M4 with washer", "inlet to the shield"],
    ["sheet", 1, null, "clear sheet under the supply board"],
  ],
  charge: [
    { minutesAgo: 9, kind: "voltage_measured", volts: 311 },
    { minutesAgo: 8, kind: "drain_started", ohms: 10e3 },
    { minutesAgo: 6, kind: "voltage_measured", volts: 2, proved: true },
    { minutesAgo: 4, kind: "voltage_measured", volts: 2.1, proved: true },
  ],
  looked: {
    C1: [],
    C4: [],
    C14: ["domed"],
    C15: [],
    C18: [],
    C21: ["vented", "crust"],
    C22: ["domed"],
    C25: [],
    C9: [],
  },
  readings: [
    ...["C14", "C18", "C21", "C9", "C4"].map(
      (at) => ({ minutesAgo: 5, at, quantity: "dc_voltage", value: 0.02 }) as const,
    ),
    ...measured("C1", 0.31, 114, "lead_lifted", 5 * hour),
    ...measured("C4", 1.5, 17.4, "out", 5 * hour),
    { minutesAgo: 4.2 * hour, at: "C14", quantity: "esr", value: 0.0406, state: "in_circuit", hertz: 100e3 },
    { minutesAgo: 4.1 * hour, at: "C14", quantity: "esr", value: 0.0412, state: "in_circuit", hertz: 100e3 },
    ...measured("C14", 0.42, 610, "lead_lifted", 4 * hour),
    ...measured("C18", 0.061, 462, "lead_lifted", 4 * hour),
    ...measured("C21", 1.7, 310, "out", 3.5 * hour),
    ...measured("C22", 0.31, 1020, "out", 3.4 * hour),
    ...measured("C25", 0.16, 322, "lead_lifted", 3 * hour),
    { minutesAgo: 2.5 * hour, at: "F1", quantity: "resistance", value: 0.3, state: "in_circuit", pins: "1,2" },
    ...["L,+", "N,+", "-,L", "-,N"].map(
      (pins, n) =>
        ({
          minutesAgo: 2.4 * hour,
          at: "BR1",
          quantity: "diode_drop",
          value: 0.521 + 0.002 * n,
          state: "in_circuit",
          pins,
        }) as const,
    ),
    { minutesAgo: 2.3 * hour, at: "BR1", quantity: "diode_drop", value: null, state: "in_circuit", pins: "+,-" },
    { minutesAgo: 2.2 * hour, at: "Q1", quantity: "resistance", value: 3.2e6, state: "in_circuit", pins: "D,S" },
  ],
  plans: ["C21"],
  components: {
    Q1: {
      kind: "transistor",
      ratings: ratingList({
        ...{ channel: "n", ratedVolts: 600, ratedAmps: 7, onOhms: 1, gateChargeCoulombs: 40e-9 },
        ...{ recoverySeconds: 400e-9, package: "TO-220", tab: "insulated" },
      }),
    },
  },
  ticks: [],
  proof: [],
  captures: [
    { net: "5 V", name: "5 V, two amps", seconds: 0.0006, loadAmps: 2, mainsVolts: 0.004, minutesAgo: 2 * hour },
  ],
  handedOverMinutesAgo: null,
};

/** A television with PFC, still charged: nothing has been drained yet. */
const television: DemoJob = {
  minutesAgo: 5 * hour,
  person: "Marek",
  intake: {
    deviceKind: "television",
    deviceMaker: "Quorvane",
    deviceModel: "Terrace 43",
    deviceAgeYears: 6,
    complaint: "Dead after a thunderstorm night. The fuse on the board is open.",
    symptoms: ["dead", "fuse_blown"],
    priceLimitMinor: 14000,
    customerName: "Family Osterwold",
  },
  dueInDays: 8,
  board: {
    name: "Terrace 43 supply",
    widthMetres: 0.22,
    depthMetres: 0.16,
    barrierMetres: 0.135,
    lidHeightMetres: 0.018,
    // One corner is cut for a screw post, and the lid is lower over the outputs.
    outline: [
      [0, 0],
      [0.22, 0],
      [0.22, 0.142],
      [0.204, 0.16],
      [0, 0.16],
    ],
    lidZones: [{ xMetres: 0.14, yMetres: 0.025, widthMetres: 0.078, depthMetres: 0.11, heightMetres: 0.012 }],
    underlay: null,
  },
  nets: {
    pfc: net("PFC bus", "pfc", 385),
    stby: net("5 V standby", "standby", 5, 1),
    vcc: net("Vcc", "vcc", 18),
    "12 V": net("12 V", "output", 12, 4),
    "24 V": net("24 V backlight", "output", 24, 3),
  },
  capacitors: [
    capacitor("C101", "pfc", [100, 450, 105], [18, 40, 7.5], [40, 50], 90, "gp"),
    capacitor("C102", "pfc", [100, 450, 105], [18, 40, 7.5], [65, 50], 90, "gp"),
    capacitor("C131", "vcc", [47, 50, 105], [6.3, 11, 2.5], [85, 130], 0),
    capacitor("C201", "stby", [1000, 10, 105], [8, 15, 3.5], [155, 130], 270),
    capacitor("C202", "stby", [470, 10, 105], [8, 11.5, 3.5], [172, 130], 270),
    capacitor("C211", "12 V", [2200, 16, 105], [12.5, 25, 5], [160, 40], 90),
    capacitor("C212", "12 V", [2200, 16, 105], [12.5, 25, 5], [178, 40], 90),
    capacitor("C221", "24 V", [1000, 35, 105], [12.5, 25, 5], [160, 85], 90),
    capacitor("C222", "24 V", [1000, 35, 105], [12.5, 25, 5], [178, 85], 90),
    capacitor("C223", "24 V", [470, 35, 105], [10, 20, 5], [196, 85], 90),
  ],
  outlines: [
    ["F101", "fuse", 8, 132, 22, 9],
    ["BR101", "bridge", 8, 84, 24, 12],
    ["L101", "choke", 20, 8, 30, 26],
    ["Q101", "transistor", 60, 12, 40, 12, 16],
    ["T201", "transformer", 115, 55, 36, 34],
    ["T301", "transformer", 118, 115, 24, 22],
    ["J201", "connector", 205, 40, 10, 60],
  ],
  stores: [
    { name: "PFC bulk C101 with C102", at: "C101", microfarads: 200, volts: 385, drainOhms: null, kind: "pfc_bulk" },
  ],
  charge: [
    { minutesAgo: 22, kind: "mains_connected" },
    { minutesAgo: 20, kind: "mains_disconnected" },
    { minutesAgo: 18, kind: "voltage_measured", volts: 318 },
  ],
  looked: {},
  readings: [],
  plans: [],
  ticks: [],
  proof: [],
  handedOverMinutesAgo: null,
};

/** A console brick, refitted and on the load. */
const consoleBrick: DemoJob = {
  minutesAgo: 6 * day,
  person: "Ines",
  intake: {
    deviceKind: "console",
    deviceMaker: "Pandruil",
    deviceModel: "Duo brick",
    deviceAgeYears: 5,
    complaint: "Console resets in the middle of a game.",
    symptoms: ["collapses_under_load", "fails_under_load"],
    priceLimitMinor: 4500,
  },
  dueInDays: 0,
  board: {
    name: "Duo brick board",
    widthMetres: 0.11,
    depthMetres: 0.07,
    barrierMetres: 0.055,
    lidHeightMetres: 0.027,
    ...plainBoard,
  },
  nets: {
    bulk: net("Bulk", "bulk", 325),
    "12 V": net("12 V", "output", 12, 8),
    stby: net("5 V standby", "standby", 5, 0.5),
  },
  capacitors: [
    capacitor("C3", "bulk", [150, 400, 105], [18, 40, 7.5], [22, 30], 90, "gp"),
    capacitor("C31", "12 V", [1500, 16, 105], [10, 25, 5], [74, 20], 270, "lowz", "light_half"),
    capacitor("C32", "12 V", [1500, 16, 105], [10, 25, 5], [89, 20], 270, "lowz", "light_half"),
    capacitor("C35", "stby", [470, 10, 105], [8, 11.5, 3.5], [80, 54], 0, "lowz", "light_half"),
  ],
  outlines: [
    ["F1", "fuse", 5, 56, 16, 7],
    ["T1", "transformer", 41, 26, 24, 26],
    ["D4", "diode", 68, 36, 27, 6],
    ["J1", "connector", 98, 22, 8, 30],
  ],
  stores: [{ name: "Bulk C3", at: "C3", microfarads: 150, volts: 325, drainOhms: 8.2e3 }],
  charge: [
    { minutesAgo: 3 * hour, kind: "mains_connected" },
    { minutesAgo: 50, kind: "mains_disconnected" },
  ],
  looked: { C3: [], C31: ["domed"], C32: ["domed", "crust"], C35: [] },
  readings: [
    ...measured("C3", 0.24, 146, "lead_lifted", 5 * day),
    ...measured("C31", 0.29, 840, "out", 5 * day),
    ...measured("C32", 0.47, 610, "out", 5 * day),
    ...measured("C35", 0.09, 455, "lead_lifted", 5 * day),
  ],
  plans: ["C31", "C32"],
  ticks: [
    { minutesAgo: 4 * day, step: "removed", at: ["C31", "C32"] },
    { minutesAgo: 3.9 * day, step: "fitted", at: ["C31", "C32"] },
    { minutesAgo: 3.8 * day, step: "polarity_board_mark", at: ["C31", "C32"] },
    { minutesAgo: 3.8 * day, step: "polarity_part_mark", at: ["C31", "C32"] },
  ],
  proof: [
    { minutesAgo: 3.9 * day, at: "C31", quantity: "esr", value: 0.021, state: "out", hertz: 100e3 },
    { minutesAgo: 3.9 * day, at: "C32", quantity: "esr", value: 0.022, state: "out", hertz: 100e3 },
    { minutesAgo: 2.8 * hour, at: "12 V", quantity: "dc_voltage", value: 12.18 },
    { minutesAgo: 2.5 * hour, at: "12 V", quantity: "dc_voltage", value: 12.02, loadAmps: 8 },
    { minutesAgo: 2.4 * hour, at: "12 V", quantity: "ripple_voltage", value: 0.064, loadAmps: 8 },
    { minutesAgo: 2.2 * hour, at: "5 V standby", quantity: "dc_voltage", value: 5.04 },
  ],
  handedOverMinutesAgo: null,
};

/** An adapter that has just come in: only the counter's notes. */
const adapter: DemoJob = {
  minutesAgo: 35,
  person: "Tomo",
  intake: {
    deviceKind: "adapter",
    deviceMaker: "Ilmekko",
    deviceModel: "A65",
    deviceAgeYears: 3,
    complaint: "Lamp on the adapter pulses, the machine does not charge.",
    symptoms: ["indicator_pulses", "ticking"],
    priceLimitMinor: 2500,
  },
  dueInDays: 2,
  board: {
    name: null,
    widthMetres: 0.09,
    depthMetres: 0.045,
    barrierMetres: 0.05,
    lidHeightMetres: null,
    ...plainBoard,
  },
  nets: {},
  capacitors: [],
  outlines: [],
  stores: [],
  charge: [],
  looked: {},
  readings: [],
  plans: [],
  ticks: [],
  proof: [],
  handedOverMinutesAgo: null,
};

/** A till display that went back last month. */
const tillDisplay: DemoJob = {
  minutesAgo: 40 * day,
  person: "Marek",
  intake: {
    deviceKind: "instrument",
    deviceMaker: "Tilberg Row",
    deviceModel: "Counter 2 display",
    deviceAgeYears: 9,
    complaint: "Will not start in the cold shop before nine.",
    symptoms: ["cold_start_fails"],
    priceLimitMinor: 6000,
  },
  dueInDays: null,
  board: {
    name: "Counter 2 supply",
    widthMetres: 0.1,
    depthMetres: 0.07,
    barrierMetres: 0.05,
    lidHeightMetres: 0.03,
    ...plainBoard,
  },
  nets: {
    bulk: net("Bulk", "bulk", 325),
    vcc: net("Vcc", "vcc", 15),
    "12 V": net("12 V", "output", 12, 1.5),
  },
  capacitors: [
    capacitor("C2", "bulk", [47, 400, 105], [16, 25, 7.5], [20, 28], 90, "gp"),
    capacitor("C6", "vcc", [47, 35, 105], [5, 11, 2], [38, 55], 180),
    capacitor("C11", "12 V", [680, 25, 105], [10, 16, 5], [70, 25], 270),
    capacitor("C12", "12 V", [220, 25, 105], [8, 11.5, 3.5], [85, 25], 270),
  ],
  outlines: [
    ["T1", "transformer", 38, 18, 22, 24],
    ["F1", "fuse", 5, 56, 16, 7],
    ["J1", "connector", 90, 40, 7, 20],
  ],
  stores: [{ name: "Bulk C2", at: "C2", microfarads: 47, volts: 325, drainOhms: 15e3 }],
  charge: [
    { minutesAgo: 38 * day + 20, kind: "voltage_measured", volts: 287 },
    { minutesAgo: 38 * day + 14, kind: "voltage_measured", volts: 1.2, proved: true },
    { minutesAgo: 38 * day + 12, kind: "voltage_measured", volts: 1.4, proved: true },
  ],
  looked: { C2: [], C6: ["sleeve_damaged"], C11: [], C12: [] },
  readings: [
    ...measured("C2", 0.62, 44, "lead_lifted", 38 * day),
    ...measured("C6", 9.4, 19, "out", 38 * day),
    ...measured("C11", 0.05, 655, "lead_lifted", 38 * day),
    ...measured("C12", 0.11, 214, "lead_lifted", 38 * day),
  ],
  plans: ["C6"],
  ticks: [
    { minutesAgo: 37.9 * day, step: "removed", at: ["C6"] },
    { minutesAgo: 37.8 * day, step: "fitted", at: ["C6"] },
    { minutesAgo: 37.7 * day, step: "polarity_board_mark", at: ["C6"] },
    { minutesAgo: 37.7 * day, step: "polarity_part_mark", at: ["C6"] },
  ],
  proof: [
    { minutesAgo: 37.9 * day, at: "C6", quantity: "esr", value: 0.19, state: "out", hertz: 100e3 },
    { minutesAgo: 37 * day, at: "12 V", quantity: "dc_voltage", value: 12.11 },
    { minutesAgo: 37 * day, at: "12 V", quantity: "dc_voltage", value: 12.05, loadAmps: 1.5 },
    { minutesAgo: 37 * day, at: "12 V", quantity: "ripple_voltage", value: 0.042, loadAmps: 1.5 },
  ],
  handedOverMinutesAgo: 36 * day,
  spentMinutes: 55,
};

/** A bench instrument in the middle of being refitted. */
const instrument: DemoJob = {
  minutesAgo: 4 * day,
  person: "Tomo",
  intake: {
    deviceKind: "instrument",
    deviceMaker: "Zwenth",
    deviceModel: "Logger 8",
    deviceAgeYears: 11,
    complaint: "Hum on the analogue inputs.",
    symptoms: ["ripple_mains", "hum"],
  },
  dueInDays: 5,
  board: {
    name: "Logger 8 supply",
    widthMetres: 0.12,
    depthMetres: 0.08,
    barrierMetres: 0.06,
    lidHeightMetres: 0.045,
    ...plainBoard,
  },
  nets: {
    bulk: net("Bulk", "bulk", 325),
    "15 V": net("15 V", "output", 15, 0.8),
    "-15 V": net("-15 V", "output", -15, 0.8),
  },
  capacitors: [
    capacitor("C1", "bulk", [100, 400, 85], [18, 35.5, 7.5], [24, 34], 90, "gp"),
    capacitor("C21", "15 V", [470, 25, 105], [10, 16, 5], [82, 25], 270),
    capacitor("C22", "-15 V", [470, 25, 105], [10, 16, 5], [82, 55], 270),
  ],
  outlines: [
    ["F1", "fuse", 6, 64, 16, 7],
    ["BR1", "bridge", 34, 60, 12, 10],
    ["T1", "transformer", 46, 22, 26, 28],
    ["J3", "connector", 108, 24, 7, 32],
  ],
  stores: [{ name: "Bulk C1", at: "C1", microfarads: 100, volts: 325, drainOhms: 12e3 }],
  charge: [
    { minutesAgo: 70, kind: "voltage_measured", volts: 296 },
    { minutesAgo: 66, kind: "voltage_measured", volts: 3.4, proved: true },
    { minutesAgo: 64, kind: "voltage_measured", volts: 3.8, proved: true },
  ],
  looked: { C1: ["domed", "base_lifted"], C21: [], C22: [] },
  readings: [
    ...measured("C1", 4.8, 41, "out", 3 * day),
    ...measured("C21", 0.058, 460, "lead_lifted", 3 * day),
    ...measured("C22", 0.06, 452, "lead_lifted", 3 * day),
  ],
  opening: [
    ["screws", 6, "M3 x 6", "lid"],
    ["earth_screws", 2, "M4", "lid to chassis, with toothed washers"],
    ["sheet", 1, null, "under the supply, towards the inlet"],
  ],
  plans: ["C1"],
  ticks: [{ minutesAgo: 60, step: "removed", at: ["C1"] }],
  proof: [],
  captures: [
    {
      net: "15 V",
      name: "15 V, hums under load",
      seconds: 0.06,
      loadAmps: 0.8,
      mainsVolts: 0.42,
      minutesAgo: 3 * hour,
    },
  ],
  handedOverMinutesAgo: null,
};

/** Monitors of the last half year, enough for the shop to know what one takes. */
export const demoClosedJobs: readonly DemoClosedJob[] = [
  { daysAgo: 171, deviceModel: "Halden 22", complaint: "Backlight drops out.", spentMinutes: 45 },
  { daysAgo: 150, deviceModel: "Halden 24", complaint: "Starts after several attempts.", spentMinutes: 40 },
  { daysAgo: 121, deviceModel: "Vesper 27", complaint: "Dead, fuse whole.", spentMinutes: 70 },
  { daysAgo: 96, deviceModel: "Halden 24", complaint: "Whines, then goes dark.", spentMinutes: 35 },
  { daysAgo: 74, deviceModel: "Vesper 27", complaint: "Picture shakes when cold.", spentMinutes: 50 },
  { daysAgo: 52, deviceModel: "Halden 22", complaint: "Indicator pulses.", spentMinutes: 55 },
];

/** Oldest first: job numbers follow. */
export const demoJobs: readonly DemoJob[] = [tillDisplay, consoleBrick, instrument, monitor, television, adapter];
