import type { Scenario, ScenarioCapacitor, ScenarioNet } from "@pale-cap/contract";
import {
  boostBulk,
  canSurfaceSquareMetres,
  controlSupplyStart,
  type FilterCapacitor,
  flybackDiscontinuousCurrent,
  halfSineCurrent,
  inductorCurrent,
  loadStepCourse,
  mainsBulk,
  type SteadyRipple,
  sectionFacts,
  steadyRipple,
} from "@pale-cap/core";
import { hasFailed } from "./fatedFoil";
import {
  canSwitch,
  controlLeakAmps,
  hasShortedOutput,
  isBoosting,
  isPathOpen,
  isPrimaryShorted,
  isRectifierOpen,
  isStartOpen,
  regulationRatio,
  standbyOf,
} from "./primaryFaults";
import { truePart } from "./truePart";

/** Everything outside the supply that decides how it runs. */
export interface Surroundings {
  readonly isMainsOn: boolean;
  readonly lampWatts: number | null;
  readonly isIsolated: boolean;
  readonly isFuseBlown: boolean;
  /** What the electronic load draws from each net. */
  readonly loadAmps: ReadonlyMap<string, number>;
  /** Nets whose load swings: by how many amperes, how often. */
  readonly swings: ReadonlyMap<string, { readonly stepAmps: number; readonly hertz: number }>;
  readonly temperatureOf: (designator: string) => number;
  /** Joints and contacts that are open now; absent: none. */
  readonly openSpots?: ReadonlySet<string>;
}

export type OperationState = "off" | "no_bulk" | "shorted" | "waiting" | "hiccup" | "running";

/** One net under power. */
export interface NetCourse {
  readonly meanVolts: number;
  /** Switching ripple over one period of the converter. */
  readonly switching: {
    readonly periodSeconds: number;
    readonly seconds: Float64Array;
    readonly volts: Float64Array;
  } | null;
  readonly switchingPeakToPeak: number;
  /** Ripple of the rectified mains that gets through, peak to peak. */
  readonly mainsPeakToPeak: number;
  /** Comes and goes: hiccup, or a control supply that climbs and falls. */
  readonly pulses: {
    readonly periodSeconds: number;
    readonly onRatio: number;
    readonly lowVolts: number;
    readonly highVolts: number;
  } | null;
  /** A load that swings: the volts beside the mean, by the seconds since each step up; a step down is its mirror. */
  readonly swing: { readonly periodSeconds: number; readonly voltsAfter: (seconds: number) => number } | null;
}

export interface Operation {
  readonly state: OperationState;
  readonly nets: ReadonlyMap<string, NetCourse>;
  readonly inputWatts: number;
  readonly inputAmps: number;
  /** From the mains to rails that stand. */
  readonly startSeconds: number;
  /** Heat in each capacitor. */
  readonly capacitorWatts: ReadonlyMap<string, number>;
  /** This operation blows the fuse. */
  readonly blowsFuse: boolean;
}

const still = (meanVolts: number, mainsPeakToPeak = 0): NetCourse => ({
  meanVolts,
  switching: null,
  switchingPeakToPeak: 0,
  mainsPeakToPeak,
  pulses: null,
  swing: null,
});

/** An isolation transformer of bench size in series with the mains. */
const isolationOhms = 14;
/** Gate pulses that the control supply must carry. */
const gateAmps = 0.25;
/** Share of the mains ripple on the bulk that the regulation lets through, as volts at the output for each volt. */
const lineRejection = 0.004;

/** How the supply stands after it has settled under these surroundings. */
export function operate(scenario: Scenario, around: Surroundings): Operation {
  const off: Operation = {
    state: "off",
    nets: new Map(),
    inputWatts: 0,
    inputAmps: 0,
    startSeconds: Infinity,
    capacitorWatts: new Map(),
    blowsFuse: false,
  };
  if (!around.isMainsOn) return off;
  if (around.isFuseBlown || isPathOpen(scenario, around.openSpots)) return { ...off, state: "no_bulk" };
  if (scenario.topology === "buck") return fedFromDirectCurrent(scenario, around, off);
  if (isPrimaryShorted(scenario)) return shorted(scenario, around, off);

  const bulkNets = scenario.nets.filter((net) => net.section === "bulk" || net.section === "pfc");
  const bulkParts = partsOn(scenario, bulkNets);
  const isPfcRunning = isBoosting(scenario);
  const standby = standbyOf(scenario);
  const idle = course(scenario, around, scenario.idleWatts, bulkParts);
  const control = controlStart(scenario, around, idle.meanVolts);
  const isControlCut = isOpenNow(scenario, around, scenario.control.net);
  const withStandby = (operation: Operation) =>
    standby.isThere && standby.isGood ? alsoStandby(scenario, around, idle, operation) : operation;
  if (standby.isThere && !standby.isGood) return withBulk(off, "waiting", bulkNets, idle, scenario, Infinity);
  if (!canSwitch(scenario) || isControlCut)
    return withStandby(
      withBulk(off, "waiting", bulkNets, idle, scenario, isControlCut ? Infinity : control.startSeconds),
    );

  const watts = outputWatts(scenario, around) / scenario.efficiencyRatio + scenario.idleWatts;
  const loaded = course(scenario, around, watts, bulkParts);
  const isLimiting = scenario.nets.some((net) => overLimitRatio(scenario, around, net) > gaveUpRatio);
  const isMainNet = (name: string) =>
    !standby.isThere || scenario.nets.find((net) => net.name === name)?.section !== "standby";
  const isOverloaded = hasShortedOutput(scenario, isMainNet) || isLimiting || loaded.outageRatio > 0.6;
  if (!control.doesStart || isOverloaded) return withStandby(hiccup(scenario, off, bulkNets, idle, control));

  const bulk = isPfcRunning && loaded.outageRatio === 0 ? boosted(scenario, watts, bulkParts, around) : loaded;
  const nets = new Map<string, NetCourse>(
    bulkNets.map((net) => [net.name, still(bulk.meanVolts, bulk.peakToPeakVolts)]),
  );
  const capacitorWatts = new Map<string, number>();
  for (const part of bulkParts) heat(capacitorWatts, part, (watts / Math.max(bulk.meanVolts, 1)) * 1.4, around);
  for (const net of scenario.nets.filter(
    (one) => one.nominalVolts != null && !bulkNets.includes(one) && one.behind == null,
  )) {
    if (net.section === "vcc") {
      nets.set(net.name, { ...still(scenario.control.runningVolts), switchingPeakToPeak: 0.1 });
      continue;
    }
    runRail(scenario, around, net, bulk, nets, capacitorWatts);
  }
  cut(scenario, around, nets);
  return {
    state: "running",
    nets,
    inputWatts: watts,
    inputAmps: watts / (0.6 * scenario.mains.voltsRms),
    startSeconds: control.startSeconds,
    capacitorWatts,
    blowsFuse: false,
  };
}

/** Whether a joint or contact in a path is open now. */
const isOpenNow = (scenario: Scenario, around: Surroundings, path: string) =>
  scenario.devices.some((one) => one.weak?.path === path && around.openSpots?.has(one.at));

/** Behind an open joint, and behind an open rectifier, there is nothing. */
function cut(scenario: Scenario, around: Surroundings, nets: Map<string, NetCourse>): void {
  for (const net of scenario.nets) {
    const feeding = net.behind ?? net.name;
    const isDead = isRectifierOpen(scenario, feeding) || isOpenNow(scenario, around, net.name);
    if (isDead && nets.has(net.name)) nets.set(net.name, still(0));
  }
}

/** The standby runs by itself, whatever the main converter does. */
function alsoStandby(scenario: Scenario, around: Surroundings, idle: BulkState, operation: Operation): Operation {
  const nets = new Map(operation.nets);
  const capacitorWatts = new Map(operation.capacitorWatts);
  const own = scenario.nets.filter((net) => net.section === "standby");
  if (hasShortedOutput(scenario, (name) => own.some((net) => net.name === name))) {
    for (const net of own) {
      const pulses = { periodSeconds: 0.4, onRatio: 0.05, lowVolts: 0, highVolts: 0.2 * (net.nominalVolts ?? 0) };
      nets.set(net.name, { ...still(0.05), pulses });
    }
    return { ...operation, nets };
  }
  for (const net of own) runRail(scenario, around, net, idle, nets, capacitorWatts);
  cut(scenario, around, nets);
  const watts = own.reduce((sum, net) => sum + ampsOf(around, net) * (net.nominalVolts ?? 0), 0);
  return { ...operation, nets, capacitorWatts, inputWatts: operation.inputWatts + watts / 0.7 };
}

/** A board of regulators behind an adapter: no mains on it at all. */
function fedFromDirectCurrent(scenario: Scenario, around: Surroundings, off: Operation): Operation {
  const feed = scenario.nets.find((net) => net.section === "other");
  const volts = feed?.nominalVolts ?? 12;
  const nets = new Map<string, NetCourse>(feed ? [[feed.name, still(volts)]] : []);
  const capacitorWatts = new Map<string, number>();
  const fed: BulkState = { meanVolts: volts, peakToPeakVolts: 0, outageRatio: 0, outageSeconds: 0 };
  if (feed && hasShortedOutput(scenario, (name) => name === feed.name)) {
    return { ...off, state: "hiccup", nets: new Map([[feed.name, still(0.1)]]), inputWatts: 3, inputAmps: 0.3 };
  }
  let watts = 0.3;
  for (const net of scenario.nets.filter((one) => one !== feed && one.nominalVolts != null && one.behind == null)) {
    const regulator = scenario.devices.find((one) => one.role === "regulator" && one.pins.OUT === net.name);
    const isShort = hasShortedOutput(scenario, (name) => name === net.name);
    if (regulator?.condition === "open" || isShort) nets.set(net.name, still(isShort ? 0.03 : 0));
    else if (regulator?.condition === "shorted") nets.set(net.name, still(volts * 0.96));
    else runRail(scenario, around, net, fed, nets, capacitorWatts);
    watts += (ampsOf(around, net) * (nets.get(net.name)?.meanVolts ?? 0)) / scenario.efficiencyRatio;
  }
  cut(scenario, around, nets);
  const runs = { state: "running", nets, capacitorWatts, inputWatts: watts, inputAmps: watts / volts } as const;
  return { ...off, ...runs, startSeconds: 0.02 };
}

/** What a converter gives an output, by its shape. */
function sourceOf({ topology, switchingHertz: hertz }: Scenario, net: ScenarioNet, amps: number) {
  const fullLoad = net.fullLoadAmps ?? Math.max(amps, 0.1);
  switch (topology) {
    case "flyback":
      return flybackDiscontinuousCurrent({
        switchingHertz: hertz,
        peakAmps: (2 * Math.max(amps, 1e-3)) / 0.38,
        fallRatio: 0.35,
        riseSeconds: 0.02 / hertz,
      });
    case "resonant":
      return halfSineCurrent({ halfHertz: 2 * hertz, meanAmps: Math.max(amps, 1e-3) });
    default:
      return inductorCurrent({
        switchingHertz: topology === "half_bridge" ? 2 * hertz : hertz,
        loadAmps: amps,
        swingAmps: 0.3 * fullLoad,
        dutyRatio: 0.4,
      });
  }
}

/** Volts on a rail and its second bank, with switching ripple from core and what the mains leaves on it. */
function runRail(
  scenario: Scenario,
  around: Surroundings,
  net: ScenarioNet,
  bulk: BulkState,
  nets: Map<string, NetCourse>,
  capacitorWatts: Map<string, number>,
): void {
  const behind = scenario.nets.find((one) => one.behind === net.name);
  const amps = ampsOf(around, net) + (behind ? ampsOf(around, behind) : 0);
  const nominal = (net.nominalVolts ?? 0) * regulated(scenario, net);
  const before = partsOn(scenario, [net]);
  const after = behind ? partsOn(scenario, [behind]) : [];
  const choke = behind && chokeBetween(scenario, net.name, behind.name);
  const hertz = scenario.switchingHertz;
  const branch = (part: ScenarioCapacitor): FilterCapacitor => truePart(part, around.temperatureOf(part.at), hertz);
  let ripple: SteadyRipple | null = null;
  if (before.length > 0) {
    const source = sourceOf(scenario, net, amps);
    const hasAfter = choke && after.length > 0;
    ripple = steadyRipple(source, {
      before: before.map(branch),
      choke: hasAfter ? { inductanceHenrys: choke.henrys ?? 4.7e-6, resistanceOhms: choke.ohms ?? 0.02 } : null,
      after: hasAfter ? after.map(branch) : [],
    });
  }
  const droop = amps * net.outputOhms;
  // Between its limit and where it gives up an output holds its current and lets its volts go.
  const limited = 1 - 0.6 * Math.min(Math.max(overLimitRatio(scenario, around, net) / gaveUpRatio, 0), 1);
  const farads = [...before, ...after].reduce((sum, part) => sum + branch(part).capacitanceFarads, 1e-6);
  const lost = Math.min((amps * bulk.outageSeconds) / farads, nominal);
  const mains = lost + (bulk.peakToPeakVolts * lineRejection * nominal) / 12;
  [net, behind].forEach((one, node) => {
    if (!one) return;
    const found = ripple?.nodeVolts[Math.min(node, (ripple?.nodeVolts.length ?? 1) - 1)];
    const chokeDrop = node === 1 ? ampsOf(around, one) * (choke?.ohms ?? 0) : 0;
    nets.set(one.name, {
      meanVolts: Math.max((nominal - droop - chokeDrop - lost / 2) * limited, 0),
      switching: ripple && found ? { periodSeconds: 1 / hertz, seconds: ripple.seconds, volts: found.values } : null,
      switchingPeakToPeak: found?.peakToPeak ?? 0,
      mainsPeakToPeak: mains,
      pulses: null,
      swing:
        ownSwing(net, one.name, before.map(branch)) ??
        swingOf(net, around.swings.get(one.name) ?? null, [...before, ...after].map(branch)),
    });
  });
  [...before, ...after].forEach((part, n) => {
    const rms = ripple?.capacitorAmps[n]?.rms ?? 0;
    heat(capacitorWatts, part, rms, around);
  });
}

/** How an output stands beside what it should: a dried capacitor in the loop lets it stand a little high. */
function regulated(scenario: Scenario, net: ScenarioNet): number {
  const isStandby = net.section === "standby" && standbyOf(scenario).isThere;
  const isLoopDry = scenario.capacitors.some(
    (part) =>
      !isStandby && hasFailed(part) && scenario.nets.some((one) => one.name === part.net && one.section === "feedback"),
  );
  return regulationRatio(scenario, isStandby) * (isLoopDry ? 1.12 : 1);
}

/** With too little ESR in its bank the loop swings by itself. */
function ownSwing(net: ScenarioNet, name: string, parts: readonly FilterCapacitor[]): NetCourse["swing"] {
  const { loop, nominalVolts } = net;
  if (!loop?.leastEsrOhms || net.name !== name || parts.length === 0) return null;
  const esrOhms = 1 / parts.reduce((sum, one) => sum + 1 / Math.max(one.esrOhms, 1e-4), 0);
  if (esrOhms >= loop.leastEsrOhms) return null;
  const periodSeconds = 1 / loop.crossoverHertz;
  return {
    periodSeconds,
    voltsAfter: (seconds) => -0.03 * (nominalVolts ?? 0) * Math.sin((2 * Math.PI * seconds) / periodSeconds),
  };
}

/** What a load that holds an output at these volts draws: by the output's ohms, or as far into its limit as it has to. */
export function ampsHeldAt(net: ScenarioNet, volts: number): number {
  const nominal = net.nominalVolts ?? 0;
  if (!(volts < nominal)) return 0;
  const byOhms = (nominal - volts) / Math.max(net.outputOhms, 1e-3);
  if (net.currentLimitAmps == null) return byOhms;
  const into = Math.min((gaveUpRatio * (1 - volts / nominal)) / 0.6, 0.99 * gaveUpRatio);
  return Math.min(byOhms, net.currentLimitAmps * (1 + into));
}

/** Above its limit by this share a supply gives up and tries again. */
const gaveUpRatio = 0.1;

/** By how much a rail is drawn above its current limit, as a share of it; 0 below it, and where it has none. */
function overLimitRatio(scenario: Scenario, around: Surroundings, net: ScenarioNet): number {
  if (net.currentLimitAmps == null) return 0;
  const behind = scenario.nets.find((one) => one.behind === net.name);
  const amps = ampsOf(around, net) + (behind ? ampsOf(around, behind) : 0);
  return Math.max(amps / net.currentLimitAmps - 1, 0);
}

/** How the loop answers a load that swings. */
function swingOf(
  net: ScenarioNet,
  swing: { readonly stepAmps: number; readonly hertz: number } | null,
  parts: readonly FilterCapacitor[],
): NetCourse["swing"] {
  const { loop } = net;
  if (!swing || !loop || !(swing.stepAmps > 0) || parts.length === 0) return null;
  const voltsAfter = loadStepCourse({
    ...{ stepAmps: swing.stepAmps, crossoverHertz: loop.crossoverHertz, integratorHertz: loop.integratorHertz },
    capacitanceFarads: parts.reduce((sum, one) => sum + one.capacitanceFarads, 0),
    esrOhms: 1 / parts.reduce((sum, one) => sum + 1 / Math.max(one.esrOhms, 1e-4), 0),
  });
  return { periodSeconds: 1 / swing.hertz, voltsAfter };
}

function heat(into: Map<string, number>, part: ScenarioCapacitor, ampsRms: number, around: Surroundings): void {
  into.set(part.at, ampsRms ** 2 * truePart(part, around.temperatureOf(part.at), 65e3).esrOhms);
}

/** Kelvin above its surroundings that a can takes from its own heat, in still air. */
export function ownHeatKelvin(part: ScenarioCapacitor, watts: number): number {
  const [diameter = 5, height = 11] = part.can;
  return Math.min(watts / (12 * canSurfaceSquareMetres(diameter / 1e3, height / 1e3)), 70);
}

interface BulkState {
  readonly meanVolts: number;
  readonly peakToPeakVolts: number;
  /** Share of the time below the converter's drop-out, and the longest stretch of it. */
  readonly outageRatio: number;
  readonly outageSeconds: number;
}

/** The rectified mains on the bulk capacitors, by core; without enough capacitance the bus follows the mains. */
function course(
  scenario: Scenario,
  around: Surroundings,
  watts: number,
  parts: readonly ScenarioCapacitor[],
): BulkState {
  const { voltsRms, hertz } = scenario.mains;
  const peak = Math.SQRT2 * voltsRms;
  const trues = parts.map((part) => truePart(part, around.temperatureOf(part.at), 100));
  const { isDoubler = false } = scenario;
  // Of a doubler each half is charged by itself: the smaller one decides.
  const farads = isDoubler
    ? Math.max(2 / trues.reduce((sum, one) => sum + 1 / one.capacitanceFarads, 1e-9), 0.1e-6)
    : trues.reduce((sum, one) => sum + one.capacitanceFarads, 0.1e-6);
  const siemens = trues.reduce((sum, one) => sum + 1 / one.esrOhms, 1e-3) / (isDoubler ? 2 : 1);
  try {
    const found = mainsBulk({
      topology: isDoubler ? "doubler" : "bridge",
      mainsVoltsRms: voltsRms,
      mainsHertz: hertz,
      sourceOhms: sourceOhms(scenario, around, watts),
      capacitanceFarads: farads,
      esrOhms: 1 / siemens,
      loadWatts: watts,
      dropoutVolts: scenario.dropoutBulkVolts,
    });
    const below = found.busVolts.reduce((count, volts) => count + Number(volts < scenario.dropoutBulkVolts), 0);
    const outageRatio = below / found.busVolts.length;
    return {
      meanVolts: found.meanVolts,
      peakToPeakVolts: found.peakToPeakVolts,
      outageRatio,
      outageSeconds: outageRatio / (2 * hertz),
    };
  } catch {
    const outageRatio = (2 / Math.PI) * Math.asin(Math.min(scenario.dropoutBulkVolts / peak, 1));
    return {
      meanVolts: (2 * peak) / Math.PI,
      peakToPeakVolts: peak,
      outageRatio,
      outageSeconds: outageRatio / (2 * hertz),
    };
  }
}

/** Behind a boost converter: its own voltage, and the ripple of core's boostBulk. */
function boosted(
  scenario: Scenario,
  watts: number,
  parts: readonly ScenarioCapacitor[],
  around: Surroundings,
): BulkState {
  const volts = scenario.pfcVolts ?? 390;
  const farads = parts.reduce(
    (sum, part) => sum + truePart(part, around.temperatureOf(part.at), 100).capacitanceFarads,
    1e-6,
  );
  const ripple = boostBulk({
    busVolts: volts,
    mainsHertz: scenario.mains.hertz,
    loadWatts: watts,
    capacitanceFarads: farads,
    esrOhms: 0,
    dropoutVolts: Math.min(scenario.dropoutBulkVolts, volts),
  });
  const peakToPeakVolts = Math.min(ripple.peakToPeakVolts, volts);
  const low = volts - peakToPeakVolts / 2;
  const outageRatio = low < scenario.dropoutBulkVolts ? 0.3 : 0;
  return { meanVolts: volts, peakToPeakVolts, outageRatio, outageSeconds: outageRatio / (2 * scenario.mains.hertz) };
}

/** Cold, a lamp is a tenth of its hot resistance; it gets there as the load takes its rated power. */
function sourceOhms(scenario: Scenario, { lampWatts, isIsolated }: Surroundings, watts: number): number {
  const ntc = scenario.devices.find((one) => one.kind === "ntc");
  const warmNtc = (ntc?.ohms ?? 0) * 0.15;
  const lamp =
    lampWatts === null
      ? 0
      : (scenario.mains.voltsRms ** 2 / lampWatts) * Math.min(0.1 + 0.9 * (watts / lampWatts) ** 0.7, 1);
  return scenario.mains.sourceOhms + warmNtc + lamp + (isIsolated ? isolationOhms : 0);
}

function controlStart(scenario: Scenario, around: Surroundings, bulkVolts: number) {
  const { control } = scenario;
  const parts = scenario.capacitors
    .filter((part) => part.net === control.net)
    .map((part) => truePart(part, around.temperatureOf(part.at), 65e3));
  const farads = parts.reduce((sum, one) => sum + one.capacitanceFarads, 1e-9);
  const esrOhms = 1 / parts.reduce((sum, one) => sum + 1 / one.esrOhms, 1e-6);
  const swing = control.startVolts - control.stopVolts;
  // Gate pulses drop across the ESR: what is left of the swing has to last until the winding takes over.
  const left = swing - gateAmps * esrOhms;
  const start = controlSupplyStart({
    ...control,
    ...(isStartOpen(scenario) ? { startOhms: 1e9 } : {}),
    quiescentAmps: control.quiescentAmps + controlLeakAmps(scenario),
    capacitanceFarads: farads,
    bulkVolts: Math.max(bulkVolts, 1),
  });
  const runSeconds = (farads * swing) / control.operatingAmps;
  return {
    ...start,
    // Behind an isolation transformer the bulk fills slowly and sags: the start comes late.
    startSeconds: start.startSeconds * (around.isIsolated ? 2.6 : 1),
    doesStart: start.doesStart && left > 0 && farads >= (start.leastFarads * swing) / left,
    runSeconds,
  };
}

function hiccup(
  scenario: Scenario,
  off: Operation,
  bulkNets: readonly ScenarioNet[],
  idle: BulkState,
  control: ReturnType<typeof controlStart>,
): Operation {
  if (!Number.isFinite(control.startSeconds)) return withBulk(off, "waiting", bulkNets, idle, scenario, Infinity);
  const runSeconds = Math.min(Math.max(control.runSeconds, 2e-3), 0.2);
  const periodSeconds = Math.min(control.startSeconds * 0.5 + runSeconds, 5);
  const onRatio = runSeconds / periodSeconds;
  const base = withBulk(off, "hiccup", bulkNets, idle, scenario, Infinity);
  const nets = new Map(base.nets);
  for (const net of scenario.nets) {
    if (net.nominalVolts == null || bulkNets.includes(net)) continue;
    const isVcc = net.name === scenario.control.net;
    const highVolts = isVcc ? scenario.control.startVolts : net.nominalVolts * 0.45;
    const lowVolts = isVcc ? scenario.control.stopVolts : net.nominalVolts * 0.02;
    const meanVolts = isVcc ? (highVolts + lowVolts) / 2 : lowVolts + (highVolts - lowVolts) * onRatio;
    nets.set(net.name, { ...still(meanVolts), pulses: { periodSeconds, onRatio, lowVolts, highVolts } });
  }
  return { ...base, nets, inputWatts: scenario.idleWatts * (0.5 + onRatio) };
}

/** Bulk full, the rest dead; the control supply stands where its start-up resistor leaves it. */
function withBulk(
  off: Operation,
  state: OperationState,
  bulkNets: readonly ScenarioNet[],
  idle: BulkState,
  scenario: Scenario,
  startSeconds: number,
): Operation {
  const nets = new Map<string, NetCourse>(
    bulkNets.map((net) => [net.name, still(idle.meanVolts, idle.peakToPeakVolts)]),
  );
  const { control } = scenario;
  const isStarved = !Number.isFinite(startSeconds);
  nets.set(control.net, still(isStarved ? control.startVolts * 0.6 : control.startVolts * 0.97));
  const inputWatts = scenario.idleWatts * 0.3;
  return { ...off, state, nets, startSeconds, inputWatts, inputAmps: inputWatts / (0.5 * scenario.mains.voltsRms) };
}

/** A dead short after the bridge: the lamp takes it all, or the fuse goes. */
function shorted(scenario: Scenario, { lampWatts }: Surroundings, off: Operation): Operation {
  const nets = new Map(
    scenario.nets.filter((net) => net.section === "bulk" || net.section === "pfc").map((net) => [net.name, still(1.5)]),
  );
  if (lampWatts === null) return { ...off, state: "no_bulk", blowsFuse: true };
  return {
    ...off,
    state: "shorted",
    nets,
    inputWatts: lampWatts * 0.98,
    inputAmps: lampWatts / scenario.mains.voltsRms,
  };
}

export const partsOn = (scenario: Scenario, nets: readonly ScenarioNet[]) =>
  scenario.capacitors.filter((part) => nets.some((net) => net.name === part.net));

const ampsOf = (around: Surroundings, net: ScenarioNet) => (around.loadAmps.get(net.name) ?? 0) + net.idleAmps;

const outputWatts = (scenario: Scenario, around: Surroundings) =>
  scenario.nets
    .filter((net) => !sectionFacts[net.section].isMainsSide)
    .reduce((sum, net) => sum + ampsOf(around, net) * (net.nominalVolts ?? 0), 0);

function chokeBetween(scenario: Scenario, from: string, to: string) {
  return scenario.devices.find(
    (one) => one.kind === "choke" && Object.values(one.pins).includes(from) && Object.values(one.pins).includes(to),
  );
}
