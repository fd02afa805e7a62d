import type { Scenario, ScenarioCapacitor, ScenarioNet } from "@pale-cap/contract";
import {
  boostBulk,
  canSurfaceSquareMetres,
  controlSupplyStart,
  type FilterCapacitor,
  flybackDiscontinuousCurrent,
  inductorCurrent,
  loadStepCourse,
  mainsBulk,
  type SteadyRipple,
  sectionFacts,
  steadyRipple,
} from "@pale-cap/core";
import { canSwitch, hasShortedOutput, isPathOpen, isPrimaryShorted } from "./primaryFaults";
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
  if (around.isFuseBlown || isPathOpen(scenario)) return { ...off, state: "no_bulk" };
  if (isPrimaryShorted(scenario)) return shorted(scenario, around, off);

  const bulkNets = scenario.nets.filter((net) => net.section === "bulk" || net.section === "pfc");
  const bulkParts = partsOn(scenario, bulkNets);
  const isPfcRunning = scenario.pfcVolts != null;
  const idle = course(scenario, around, scenario.idleWatts, bulkParts);
  const control = controlStart(scenario, around, idle.meanVolts);
  if (!canSwitch(scenario)) return withBulk(off, "waiting", bulkNets, idle, scenario, control.startSeconds);

  const watts = outputWatts(scenario, around) / scenario.efficiencyRatio + scenario.idleWatts;
  const loaded = course(scenario, around, watts, bulkParts);
  const isLimiting = scenario.nets.some((net) => overLimitRatio(scenario, around, net) > gaveUpRatio);
  const isOverloaded = hasShortedOutput(scenario) || isLimiting || loaded.outageRatio > 0.6;
  if (!control.doesStart || isOverloaded) return hiccup(scenario, off, bulkNets, idle, control);

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
  const nominal = net.nominalVolts ?? 0;
  const before = partsOn(scenario, [net]);
  const after = behind ? partsOn(scenario, [behind]) : [];
  const choke = behind && chokeBetween(scenario, net.name, behind.name);
  const hertz = scenario.switchingHertz;
  const branch = (part: ScenarioCapacitor): FilterCapacitor => truePart(part, around.temperatureOf(part.at), hertz);
  let ripple: SteadyRipple | null = null;
  if (before.length > 0) {
    const fullLoad = net.fullLoadAmps ?? Math.max(amps, 0.1);
    const source =
      scenario.topology === "flyback"
        ? flybackDiscontinuousCurrent({
            switchingHertz: hertz,
            peakAmps: (2 * Math.max(amps, 1e-3)) / 0.38,
            fallRatio: 0.35,
            riseSeconds: 0.02 / hertz,
          })
        : inductorCurrent({ switchingHertz: hertz, loadAmps: amps, swingAmps: 0.3 * fullLoad, dutyRatio: 0.4 });
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
      swing: swingOf(net, around.swings.get(one.name) ?? null, [...before, ...after].map(branch)),
    });
  });
  [...before, ...after].forEach((part, n) => {
    const rms = ripple?.capacitorAmps[n]?.rms ?? 0;
    heat(capacitorWatts, part, rms, around);
  });
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
  const farads = trues.reduce((sum, one) => sum + one.capacitanceFarads, 0.1e-6);
  const siemens = trues.reduce((sum, one) => sum + 1 / one.esrOhms, 1e-3);
  try {
    const found = mainsBulk({
      topology: "bridge",
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
  const start = controlSupplyStart({ ...control, capacitanceFarads: farads, bulkVolts: Math.max(bulkVolts, 1) });
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
