import type {
  CapacitanceSchool,
  CleanLookSchool,
  EsrSourceSchool,
  InCircuitSchool,
  JobRules,
  ReplacementOrder,
  ReplacementStrategy,
  SchoolName,
  TesterMode,
  VoltageSchool,
} from "@pale-cap/core";
import { amount, choice, codes, flag, kit, moneyUnit, text } from "./ruleKinds";

/** Schools of practice that guide and are shown where they apply. */
export type DrainWay = "resistor_or_lamp" | "resistor" | "lamp" | "wait";
export type FirstPowerWay = "series_lamp" | "limiter" | "straight";
export type PartSource = "trusted" | "any" | "salvaged_measured";
export type TransistorSchool = "same_type" | "equal_or_better";
export type RemovingWay = "group_with_photo" | "one_at_a_time" | "all_of_value";
/** Where an instrument may stand. */
export type InstrumentAddresses = "loopback" | "private" | "any";
export type PaperSize = "a4" | "letter";
export type LabelStock = "sheet" | "single";
export type SolderAlloy = "any" | "leaded" | "lead_free";

/** Every rule with its default. What the shop changed is stored apart and folded over these. */
export const houseRules = {
  "charge.workingVolts": amount(
    10,
    "V",
    [1, 60],
    [
      "Drained means at or below",
      "bench habit; 60 V d.c. is the usual touch limit",
      "low enough that a slip marks neither hand nor meter",
    ],
  ),
  "charge.reverifyMinutes": amount(
    30,
    "min",
    [1, 600],
    ["A verification counts for", "bench habit", "dielectric absorption brings 2 to 10 % of the voltage back"],
  ),
  "charge.waitSeconds": amount(
    60,
    "s",
    [60, 3600],
    [
      "A second reading comes after",
      "about half of what creeps back is back after one to two minutes",
      "a drained electrolytic gives back 2 to 10 % of its voltage by itself",
    ],
  ),
  "charge.longestDrainSeconds": amount(
    20,
    "s",
    [1, 600],
    ["A drain may take", "bench habit", "nobody watches a meter for minutes with a probe in each hand"],
  ),
  "charge.kit": kit(
    [
      { name: "10 kΩ wire-wound", kind: "resistor", count: 1, ohms: 10e3, watts: 5, volts: 500 },
      { name: "two 4.7 kΩ in series", kind: "resistor", count: 2, ohms: 4700, watts: 5, volts: 500 },
      { name: "60 W lamp", kind: "lamp", count: 1, ohms: null, watts: 60, volts: 230 },
      { name: "two 60 W lamps in series", kind: "lamp", count: 2, ohms: null, watts: 60, volts: 230 },
    ],
    ["What the shop drains with", "a usual drawer", "a named part with known ratings beats whatever lies near"],
  ),
  "charge.drainWay": choice<DrainWay>(
    "resistor_or_lamp",
    {
      resistor_or_lamp: "resistor or lamp, whichever stands it",
      resistor: "resistor only",
      lamp: "lamp only",
      wait: "wait for the bleeder, where one is known",
    },
    [
      "How stores are drained",
      "bench practice",
      "then the meter; a short with a tool is never offered: arc, pits, a welded tool, a damaged part",
    ],
  ),
  "power.firstWay": choice<FirstPowerWay>(
    "series_lamp",
    { series_lamp: "series lamp", limiter: "electronic limiter", straight: "straight to the mains" },
    [
      "First power goes through",
      "bench practice",
      "a fault then costs a bright lamp; timing and regulation are measured again without it",
    ],
  ),
  "power.hasTransformer": flag(false, [
    "First power behind an isolation transformer",
    "bench practice",
    "it isolates but does not limit current, and the residual-current device upstream protects no more",
  ]),
  "mains.voltsRms": amount(
    230,
    "V",
    [90, 265],
    ["Mains voltage", "the shop's supply", "bulk voltage, lamp and inrush follow from it"],
  ),
  "mains.hertz": amount(
    50,
    "Hz",
    [45, 65],
    ["Mains frequency", "the shop's supply", "ripple and inrush follow from it"],
  ),
  "judge.school": choice<SchoolName>(
    "twenty",
    {
      ten: "strict bench: C −10 %, ESR 2 × typical",
      twenty: "usual repair: C −20 %, ESR 3 × typical",
      eol200: "endurance: ESR 2 × catalogue maximum",
      eol300: "endurance: ESR 3 × catalogue maximum",
    },
    [
      "End-of-life school",
      "repair practice and endurance tests of catalogues",
      'about 0.05 % of "sound" verdicts were wrong in simulation',
    ],
  ),
  "judge.inCircuit": choice<InCircuitSchool>(
    "condemn_only",
    { condemn_only: "in circuit condemns, out clears", bank_bound: "a bound over the bank clears too" },
    ["What a reading in circuit may do", "bench practice", "a good neighbour hides a bad part; a lifted lead clears"],
  ),
  "judge.esrSource": choice<EsrSourceSchool>(
    "best_first",
    {
      best_first: "data sheet, then can size, then tan delta",
      tan_delta: "tan delta only, as on a chart",
    },
    [
      "Expected ESR comes from",
      "catalogues and the can-size classes",
      "the same value in a larger can has a lower ESR; a rule of thumb is the last resort and named as such",
    ],
  ),
  "judge.cleanLook": choice<CleanLookSchool>(
    "means_nothing",
    { means_nothing: "means nothing", counts_a_little: "speaks a little for the part" },
    ["No bulge", "bench practice", "most dried capacitors look like new; a clean look never clears a part"],
  ),
  "judge.failedFromRatio": amount(
    0.5,
    "",
    [0.5, 0.99],
    [
      "A part is called failed from this chance on",
      "docs/judgement.md",
      "at 90 % the study leaves a tenth of the failed parts in; from even odds on it finds them and condemns no more sound ones",
    ],
  ),
  "judge.wornFromRatio": amount(
    0.8,
    "",
    [0.3, 0.99],
    ["A part is called worn from this chance on", "simulation of the school", "worn or worse; it may stay in"],
  ),
  "judge.soundUpToRatio": amount(
    0.1,
    "",
    [0.005, 0.3],
    [
      "A part is called sound up to this chance of having failed",
      "simulation of the school",
      "the lower, the more parts stay undecided",
    ],
  ),
  "judge.esrUncertaintyRatio": amount(
    0.1,
    "",
    [0.01, 1],
    [
      "Spread of an ESR reading, relative",
      "usual hand-held meter",
      "contact and meter together, one standard deviation",
    ],
  ),
  "judge.contactOhms": amount(
    0.003,
    "Ω",
    [0, 1],
    ["Contact resistance left after zeroing", "usual probe tips", "matters below 50 mΩ"],
  ),
  "judge.capacitanceUncertaintyRatio": amount(
    0.03,
    "",
    [0.005, 0.5],
    [
      "Spread of a capacitance reading, relative",
      "usual hand-held meter",
      "accuracy of the range, one standard deviation",
    ],
  ),
  "judge.leadOhms": amount(
    0,
    "Ω",
    [0, 1],
    [
      "The leads add to an ESR reading",
      "probes shorted together",
      "0 where the meter zeroes its leads; taken off otherwise",
    ],
  ),
  "judge.testerShows": choice<TesterMode>("real", { real: "the resistive part", magnitude: "the whole impedance" }, [
    "The ESR meter shows",
    "the meter's manual",
    "a meter that shows impedance reads small capacitances too high; their reactance is taken off",
  ]),
  "choose.voltageSchool": choice<VoltageSchool>(
    "both",
    { marking: "as marked or higher", rail: "the rail with its margin", both: "the stricter of both" },
    ["Rated voltage of a replacement", "bench practice", "a 25 V part on a 24 V rail was too weak from the factory"],
  ),
  "choose.lowRailVoltsRatio": amount(
    0,
    "×",
    [0, 3],
    [
      "Rated volts over rails up to 6 V",
      "some benches take half more than the rail",
      "0: as for every output, a quarter more than the highest volts logged there",
    ],
  ),
  "choose.secondaryClearanceMillimetres": amount(
    6.4,
    "mm",
    [3, 20],
    [
      "A part on the mains side keeps from the secondary",
      "usual reinforced insulation at 230 V; the design's own distance and local rules come first",
      "never less than the place had; a sleeve insulates nothing",
    ],
  ),
  "choose.earthedClearanceMillimetres": amount(
    4,
    "mm",
    [1, 20],
    [
      "A part on the mains side keeps from earthed metal",
      "usual basic insulation at 230 V; the design's own distance and local rules come first",
      "the lid counts as earthed metal",
    ],
  ),
  "choose.hotClearanceMillimetres": amount(
    5,
    "mm",
    [1, 30],
    ["A can keeps from sinks and hot parts", "bench practice", "ten degrees less is twice the life"],
  ),
  "choose.howMany": choice<ReplacementStrategy>(
    "same_group",
    {
      failed_only: "only the bad ones",
      same_group: "all of the same rail and value",
      all_electrolytics: "every electrolytic",
      whole_supply: "the whole supply",
    },
    [
      "How many are replaced",
      "bench practice, survival of batches",
      "parts of one batch die together; remaining life and the cost of a comeback decide in the end",
    ],
  ),
  "choose.capacitance": choice<CapacitanceSchool>(
    "by_position",
    {
      by_position: "by position: output −10/+100 %, bulk and Vcc near",
      exact: "as marked",
      near: "as near as stocked, within −20/+25 %",
      not_below: "as marked or more",
    },
    [
      "Capacitance of a replacement",
      "bench practice",
      "outputs like more, a bulk is limited by inrush, Vcc by its start time, feedback by its loop",
    ],
  ),
  "choose.order": choice<ReplacementOrder>(
    "longest_life",
    {
      longest_life: "longest expected life",
      expected_cost: "lowest cost, a return counted",
      drawer_first: "from the drawer first",
    },
    [
      "What stands first where several parts fit",
      "bench practice",
      "what lasts is cheap where a return is dear; what lies there is there today",
    ],
  ),
  "choose.partSource": choice<PartSource>(
    "trusted",
    {
      trusted: "trusted distributors only",
      any: "any source",
      salvaged_measured: "salvaged too, measured and marked as such",
    },
    ["Source of parts", "bench practice", "counterfeits show in weight, size, ESR and sleeve"],
  ),
  "choose.transistor": choice<TransistorSchool>(
    "equal_or_better",
    { same_type: "the same type only", equal_or_better: "any with equal or better ratings" },
    [
      "Substitute transistors",
      "bench practice",
      "compare Vds, Id, Rds(on), gate charge against the driver, body diode and package; the technician decides",
    ],
  ),
  "rework.removing": choice<RemovingWay>(
    "group_with_photo",
    {
      group_with_photo: "all of one value when a photo or drawing exists, else one at a time",
      one_at_a_time: "one at a time",
      all_of_value: "all of one value",
    },
    ["Taking old parts out", "bench practice", "polarity and place are lost in the moment when two places are empty"],
  ),
  "rework.alloy": choice<SolderAlloy>(
    "any",
    { any: "any, low-melt only to remove", leaded: "leaded", lead_free: "lead-free" },
    ["Solder", "bench practice", "low-melt alloy never stays in the final joint; mind local rules for the product"],
  ),
  "prove.railToleranceRatio": amount(
    0.05,
    "",
    [0.005, 0.3],
    ["Rail limits where it has none of its own", "common rail tolerance", "5 % either way, loaded and unloaded"],
  ),
  "prove.negativeToleranceRatio": amount(
    0.1,
    "",
    [0.005, 0.3],
    ["Limits of rails below zero", "common rail tolerance", "they are seldom regulated by themselves"],
  ),
  "prove.loadShareRatio": amount(
    0.95,
    "",
    [0.9, 1],
    [
      "A rail counts as loaded from this share of its promise",
      "the promise itself",
      "a tenth of the load proves a tenth of the supply; what a load bank sets is a few per cent off",
    ],
  ),
  "prove.mustReadNewParts": flag(true, [
    "A new part is read before the job is closed",
    "bench habit",
    "old stock, mixed drawers and fakes: a new part can be bad",
  ]),
  "prove.earthBondOhms": amount(
    0.3,
    "Ω",
    [0.05, 1],
    [
      "Protective earth, plug pin to case, at most",
      "usual limit for a repaired unit with its cord; local rules come first",
      "a fault current must find its way to the fuse and not through a hand",
    ],
  ),
  "prove.insulationOhms": amount(
    1e6,
    "Ω",
    [1e5, 1e9],
    [
      "Insulation of the mains side, at least",
      "usual limit for class I after repair; class II asks twice; local rules come first",
      "what leaks through insulation flows through a hand",
    ],
  ),
  "prove.stepSeconds": amount(
    60,
    "s",
    [5, 3600],
    ["Each step of load is held for", "bench practice", "rails and meters settle in seconds, cans take longer"],
  ),
  "prove.burnInHours": amount(
    2,
    "h",
    [0.1, 48],
    ["A burn-in lasts", "bench practice", "two hours find most; four to eight where heat or time brings the fault"],
  ),
  "prove.spotCelsius": amount(
    85,
    "°C",
    [40, 200],
    [
      "A run ends where its thermometer reads more than",
      "a can 20 K below its class",
      "the repair must not cook what it mended",
    ],
  ),
  "prove.kelvinPerMinute": amount(
    10,
    "K/min",
    [1, 100],
    ["A run ends where heat rises faster than", "bench practice", "a part that runs away is caught before its limit"],
  ),
  "prove.runGapSeconds": amount(
    60,
    "s",
    [5, 600],
    [
      "A run goes on after so long without its server, at most",
      "bench practice",
      "nobody watched it meanwhile; beyond it everything is switched off",
    ],
  ),
  "prove.rippleLimitRatio": amount(
    0.01,
    "",
    [0.001, 0.2],
    ["Ripple limit where a rail has none of its own", "common rail limit", "1 % of the rail, peak to peak"],
  ),
  "prove.rippleLimitLowRailVolts": amount(
    0.05,
    "V",
    [0, 1],
    [
      "Ripple limit of rails up to 6 V",
      "logic supplies",
      "millivolts rather than per cent where logic hangs on the rail, peak to peak; 0 takes the per cent for all",
    ],
  ),
  "shop.warrantyMonths": amount(
    6,
    "months",
    [0, 60],
    ["Warranty", "the shop's promise", "long enough to see a weak neighbour fail"],
  ),
  "shop.labourPerHourMinor": amount(
    6000,
    moneyUnit,
    [0, 100_000],
    ["Labour an hour", "the shop", "the sum of a repair starts here"],
  ),
  "shop.comebackRatio": amount(
    0.05,
    "",
    [0, 1],
    ["Share of repairs that come back", "bench experience", "a comeback is done again at the shop's cost"],
  ),
  "shop.usualMinutes": amount(
    60,
    "min",
    [1, 2000],
    ["Usual repair", "the shop", "reckoned with until five closed jobs of the kind tell better"],
  ),
  "shop.minutesPerPart": amount(
    6,
    "min",
    [0, 120],
    ["Each further part takes", "the shop", "two parts are in the usual repair, the rest come on top"],
  ),
  "shop.usualPartMinor": amount(
    80,
    moneyUnit,
    [0, 100_000],
    ["A capacitor costs", "the shop's last orders", "reckoned with until one is chosen"],
  ),
  "shop.markupRatio": amount(
    0.3,
    "",
    [0, 5],
    ["Markup on parts", "the shop", "what a part costs to choose, order, receive and keep"],
  ),
  "shop.smallPartsMinor": amount(
    200,
    moneyUnit,
    [0, 100_000],
    ["Small parts, flat", "the shop", "solder, wick, paste and wire are not counted one by one"],
  ),
  "shop.leastChargeMinor": amount(
    0,
    moneyUnit,
    [0, 1_000_000],
    ["A repair is charged at least", "the shop", "the diagnosis alone takes its time"],
  ),
  "shop.taxRatio": amount(
    0.19,
    "",
    [0, 0.59],
    ["Tax on a quote", "the rate where the shop is", "lines are net, the sum is not"],
  ),
  "shop.quoteDays": amount(14, "days", [1, 365], ["A quote stands for", "the shop", "prices of parts move"]),
  "shop.quoteToleranceRatio": amount(
    0.1,
    "",
    [0, 0.5],
    ["A sum that was agreed to may grow by", "usual; local law comes first", "beyond it the customer is asked again"],
  ),
  "shop.orderDays": amount(
    3,
    "days",
    [0, 90],
    ["An order takes", "the shop's distributors", "set against the day the unit is due"],
  ),
  "instruments.addresses": choice<InstrumentAddresses>(
    "private",
    {
      loopback: "on this computer only",
      private: "on this computer and in private networks",
      any: "at any address",
    },
    [
      "Instruments may stand",
      "private address ranges (RFC 1918, RFC 4193)",
      "the server opens a line to whatever is named here: nobody should reach strange machines through it",
    ],
  ),
  "instruments.mostCount": amount(
    24,
    "",
    [1, 200],
    ["Instruments at most", "bench habit", "each one keeps a line open and is asked again and again"],
  ),
  "backup.warnDays": amount(
    7,
    "days",
    [1, 90],
    ["A backup may be this old", "the shop", "what was entered since the last one is lost with the disk"],
  ),
  "stock.shelfYears": amount(
    2,
    "years",
    [0.5, 20],
    ["Shelf time of liquid capacitors", "bench practice", "longer ago the oxide has faded: test leakage before use"],
  ),
  "stock.reformYears": amount(
    4,
    "years",
    [1, 40],
    ["Re-form from this age on", "bench practice", "so old a part draws too much at its rated volts at once"],
  ),
  "stock.service": amount(
    0.95,
    "",
    [0.5, 0.999],
    [
      "Chance that a part does not run out before the next delivery",
      "bench practice",
      "decides when a part is ordered again, by how often it was used in the last year",
    ],
  ),
  "stock.orderCostMinor": amount(
    500,
    moneyUnit,
    [1, 1_000_000],
    ["What placing an order costs", "bench practice", "work and shipping: the dearer, the more is ordered at once"],
  ),
  "stock.holdRatio": amount(
    0.25,
    "of the price a year",
    [0.01, 2],
    [
      "What lying in a drawer costs",
      "bench practice",
      "money and parts that grow old: the dearer, the less is ordered",
    ],
  ),
  "stock.badRatio": amount(
    0.02,
    "",
    [0, 0.5],
    [
      "Bad parts that a delivery may hold",
      "bench practice",
      "a sample decides whether the lot is taken, by this share",
    ],
  ),
  "record.isUsed": flag(true, [
    "Closed jobs move priors and likelihoods",
    "the shop's own casebook",
    "what failed here before is likelier here again; every change is told and can be left out by itself",
  ]),
  "record.fewest": amount(
    5,
    "",
    [3, 100],
    [
      "Closed jobs to count on",
      "an interval from fewer says next to nothing",
      "below it a share is not told and moves nothing",
    ],
  ),
  "record.defaultWeight": amount(
    20,
    "jobs",
    [1, 500],
    [
      "What a default is worth beside closed jobs",
      "rough",
      "the higher, the longer the trade's own experience outweighs this shop's",
    ],
  ),
  "record.otherShopsWeight": amount(
    0,
    "",
    [0, 1],
    [
      "A job of another shop counts as",
      "the shop",
      "jobs that came in a bundle are kept apart; 0 leaves them out, 1 counts them as one's own",
    ],
  ),
  "record.leftOut": codes([
    "Changes by closed jobs that are left out",
    "the shop",
    "kept under Casebook, What the record changes: each of them stays at its default",
  ]),
  "shop.name": text("", ["Name of the shop", "the shop", "stands at the foot of every report and label"]),
  "shop.contact": text(
    "",
    ["How the shop is reached", "the shop", "a customer's report says whom to ask: telephone, mail, street"],
    160,
  ),
  "shop.address": text(
    "",
    [
      "Address that a label's code leads to",
      "the shop",
      "this shop's own address and /go/{number}; left empty, a code holds the job's number or the drawer alone",
    ],
    120,
  ),
  "shop.paper": choice<PaperSize>("a4", { a4: "A4", letter: "Letter" }, ["Paper", "the shop", "reports and lists"]),
  "shop.labels": choice<LabelStock>(
    "sheet",
    { sheet: "sheet of 21, 63.5 × 38.1 mm, on A4", single: "one by one, 62 × 29 mm" },
    ["Labels", "the shop", "what lies in the printer"],
  ),
  "shop.customerReadings": flag(false, [
    "Volts on the customer's report",
    "the shop",
    "how far each output was loaded is always told; the readings themselves tell most customers nothing",
  ]),
  "shop.currency": text("EUR", ["Currency", "ISO 4217", "money is stored in its minor unit"]),
  "shop.timeZone": text("Europe/Berlin", ["Time zone", "IANA time zone", "days of due dates and warranty"]),
} as const;

export type HouseRuleKey = keyof typeof houseRules;
export type HouseRuleValues = { readonly [K in HouseRuleKey]: (typeof houseRules)[K]["value"] };

/** The rules as core's functions take them. */
export function jobRules(values: HouseRuleValues): JobRules {
  return {
    judgement: {
      school: values["judge.school"],
      inCircuitSchool: values["judge.inCircuit"],
      esrSourceSchool: values["judge.esrSource"],
      cleanLookSchool: values["judge.cleanLook"],
      failedFromRatio: values["judge.failedFromRatio"],
      wornFromRatio: values["judge.wornFromRatio"],
      soundUpToRatio: values["judge.soundUpToRatio"],
      esrUncertaintyRatio: values["judge.esrUncertaintyRatio"],
      contactOhms: values["judge.contactOhms"],
      capacitanceUncertaintyRatio: values["judge.capacitanceUncertaintyRatio"],
      leadOhms: values["judge.leadOhms"],
      testerShows: values["judge.testerShows"],
    },
    charge: {
      workingVolts: values["charge.workingVolts"],
      reverifySeconds: values["charge.reverifyMinutes"] * 60,
      waitSeconds: values["charge.waitSeconds"],
    },
    rail: {
      railToleranceRatio: values["prove.railToleranceRatio"],
      negativeToleranceRatio: values["prove.negativeToleranceRatio"],
      loadShareRatio: values["prove.loadShareRatio"],
      mustReadNewParts: values["prove.mustReadNewParts"],
      mainsVoltsRms: values["mains.voltsRms"],
      rippleLimitRatio: values["prove.rippleLimitRatio"],
      rippleLimitLowRailVolts: values["prove.rippleLimitLowRailVolts"],
    },
    safety: {
      earthBondOhms: values["prove.earthBondOhms"],
      leastInsulationOhms: values["prove.insulationOhms"],
    },
  };
}
