import type { CapacitorFate } from "@pale-cap/contract";
import { type DeviceKind, faultKnowledge, seededRandom, symptomCodes, symptomLabels } from "@pale-cap/core";
import type { OperationState } from "../virtualSupply/operation";
import { VirtualSupply } from "../virtualSupply/virtualSupply";
import { type BaseName, bases } from "./bases";
import { type PracticeSupply, truthOf } from "./practiceSupply";
import { bestSteps, type PolicyRun } from "./practiser";
import { type Recipe, supplyOf } from "./recipe";

/** What of a recipe a fault brings. */
type Harm = Pick<Recipe, "fates" | "devices" | "weak" | "looks" | "outside" | "smell">;

interface Draw {
  readonly scenario: (typeof bases)[BaseName]["scenario"];
  readonly random: () => number;
}

const between = ({ random }: Draw, low: number, high: number) => low + (high - low) * random();
const pick = <T>({ random }: Draw, list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];

const capacitorsOf = ({ scenario }: Draw, ...sections: readonly string[]) =>
  scenario.capacitors.filter((part) =>
    sections.includes(scenario.nets.find((net) => net.name === part.net)?.section ?? ""),
  );
const devicesOf = ({ scenario }: Draw, is: (one: Draw["scenario"]["devices"][number]) => boolean) =>
  scenario.devices.filter(is);
const broken = (at: string | undefined, condition: "shorted" | "open"): Harm | null =>
  at ? { devices: { [at]: condition } } : null;

/** How a dried part went: most dry out, some cook beside a hot neighbour, some lose a tab. */
function worn(draw: Draw): readonly [CapacitorFate, number] {
  const by = draw.random();
  if (by < 0.72) return ["dry", between(draw, 0.15, 0.5)];
  return by < 0.9 ? ["heat", between(draw, 6, 25)] : ["tab", between(draw, 60, 180)];
}

/** Some parts of a bank have gone, one at least. */
function dried(draw: Draw, sections: readonly string[], share: number): Harm | null {
  const parts = capacitorsOf(draw, ...sections);
  const first = pick(draw, parts);
  if (!first) return null;
  const gone = parts.filter((one) => one === first || (one.net === first.net && draw.random() < share));
  const domes = gone.filter(() => draw.random() < 0.3);
  return {
    fates: Object.fromEntries(gone.map((one) => [one.at, worn(draw)])),
    looks: Object.fromEntries(domes.map((one) => [one.at, ["top domed", "domed"]])),
  };
}

/** What the faults of the knowledge are on a board. A fault that is not here is made by no generator. */
const harms: Readonly<Record<string, (draw: Draw) => Harm | null>> = {
  output_capacitors_dried: (draw) => dried(draw, ["output", "board-regulator"], 0.5),
  post_filter_capacitors_dried: (draw) => dried(draw, ["output-post"], 0.3),
  standby_capacitor_dried: (draw) => dried(draw, ["standby"], 0.5),
  bulk_dried: (draw) => dried(draw, ["bulk"], 0.4),
  boost_bulk_dried: (draw) => dried(draw, ["pfc"], 0.4),
  control_capacitor_dried: (draw) => dried(draw, ["vcc"], 0),
  feedback_capacitor_dried: (draw) => dried(draw, ["feedback"], 0),
  bulk_open: (draw) => {
    const part = pick(draw, capacitorsOf(draw, "bulk"));
    return part && !draw.scenario.isDoubler ? { fates: { [part.at]: ["open", 0] } } : null;
  },
  rectifier_shorted: (draw) =>
    broken(
      pick(
        draw,
        devicesOf(draw, (one) => one.kind === "schottky"),
      )?.at,
      "shorted",
    ),
  rectifier_open: (draw) =>
    broken(
      pick(
        draw,
        devicesOf(draw, (one) => one.kind === "schottky"),
      )?.at,
      "open",
    ),
  switch_shorted: (draw) => {
    const one = pick(
      draw,
      devicesOf(draw, (device) => device.kind === "transistor" && device.role === undefined),
    );
    return one
      ? { devices: { [one.at]: "shorted" }, looks: { [one.at]: ["a small crater in the case", "burst"] } }
      : null;
  },
  shunt_open: (draw) =>
    broken(
      devicesOf(draw, (one) => one.kind === "resistor" && (one.ohms ?? 9) < 2 && one.role !== "boost")[0]?.at,
      "open",
    ),
  boost_shunt_open: (draw) =>
    broken(devicesOf(draw, (one) => one.kind === "resistor" && one.role === "boost")[0]?.at, "open"),
  small_parts_gone: (draw) => broken(devicesOf(draw, (one) => one.role === "gate")[0]?.at, "open"),
  start_resistor_open: (draw) => broken(devicesOf(draw, (one) => one.role === "start")[0]?.at, "open"),
  fuse_open_alone: (draw) => broken(devicesOf(draw, (one) => one.kind === "fuse")[0]?.at, "open"),
  inrush_limiter_open: (draw) => broken(devicesOf(draw, (one) => one.kind === "ntc")[0]?.at, "open"),
  bridge_shorted: (draw) => broken(devicesOf(draw, (one) => one.kind === "bridge")[0]?.at, "shorted"),
  varistor_shorted: (draw) => broken(devicesOf(draw, (one) => one.kind === "varistor")[0]?.at, "shorted"),
  boost_switch_shorted: (draw) =>
    broken(devicesOf(draw, (one) => one.kind === "transistor" && one.role === "boost")[0]?.at, "shorted"),
  boost_diode_shorted: (draw) =>
    broken(devicesOf(draw, (one) => one.kind === "diode" && one.role === "boost")[0]?.at, "shorted"),
  regulation_lost: (draw) =>
    broken(
      pick(
        draw,
        devicesOf(draw, (one) => one.kind === "optocoupler"),
      )?.at,
      "open",
    ),
  standby_switcher_shorted: (draw) =>
    broken(devicesOf(draw, (one) => one.kind === "ic" && one.role === "standby")[0]?.at, "shorted"),
  output_switch_shorted: (draw) => broken(devicesOf(draw, (one) => one.role === "synchronous")[0]?.at, "shorted"),
  regulator_faulty: (draw) =>
    broken(
      pick(
        draw,
        devicesOf(draw, (one) => one.kind === "regulator"),
      )?.at,
      "open",
    ),
  ceramic_shorted: (draw) =>
    broken(
      pick(
        draw,
        devicesOf(draw, (one) => one.kind === "film"),
      )?.at,
      "shorted",
    ),
  light_strip_open: () => ({ outside: "lamps" }),
  load_faulty: () => ({ outside: "bench_feed" }),
  joint_cracked: (draw) => {
    const one = pick(
      draw,
      devicesOf(draw, ({ kind }) => kind === "transistor" || kind === "connector"),
    );
    const path = one?.kind === "connector" ? one.net : draw.scenario.control.net;
    return one && path
      ? {
          weak: { [one.at]: { path, opens: draw.random() < 0.5 ? "cold" : "handled" } },
          looks: { [one.at]: ["a dull ring around a leg", "cracked_joint"] },
        }
      : null;
  },
};

const merged = (a: Harm, b: Harm): Harm => ({
  ...a,
  ...b,
  fates: { ...a.fates, ...b.fates },
  devices: { ...a.devices, ...b.devices },
  weak: { ...a.weak, ...b.weak },
  looks: { ...a.looks, ...b.looks },
});

const blank = { name: "blank", title: "", story: "", symptoms: [], answer: "" } as const;
/** What can be told of a supply by how it stands when it is plugged in: dead, trying again and again, or running. */
const stoppedSymptoms = ["dead", "fuse_blown", "breaker_tripped", "bang"];
const tryingSymptoms = [
  "ticking",
  "indicator_pulses",
  "blink_code",
  "relay_clicks",
  "repeated_attempts",
  "cold_start_fails",
];
const wheneverSymptoms = ["intermittent", "worse_over_months", "smell", "smell_fish", "hot_capacitor"];
const litSymptoms = ["backlight_drops_out", "no_picture", "dim_or_flickers"];
const isLit = (kind: DeviceKind) => kind === "television" || kind === "monitor";

function fits(code: string, state: OperationState): boolean {
  if (wheneverSymptoms.includes(code)) return true;
  if (stoppedSymptoms.includes(code)) return state !== "running" && state !== "hiccup";
  return tryingSymptoms.includes(code) ? state !== "no_bulk" && state !== "shorted" : state === "running";
}

/** How it stands once it was plugged in and loaded as promised. */
function stateOf({ scenario }: PracticeSupply): OperationState {
  const supply = new VirtualSupply(scenario, 0);
  const loads = scenario.nets.flatMap((net, n) =>
    net.fullLoadAmps
      ? [[n + 1, { net: net.name, amps: net.fullLoadAmps, watts: null, volts: null, swing: null }] as const]
      : [],
  );
  supply.set({ isMainsOn: true, isIsolated: false, lampWatts: null, loads: Object.fromEntries(loads) }, 0);
  return supply.operation().state;
}

const madeName = /^made-([123])-(\d{1,7})$/;
const mostTries = 25;

/** The name of a made supply; null for any other name. */
export function readMadeName(name: string): { readonly difficulty: 1 | 2 | 3; readonly seed: number } | null {
  const match = madeName.exec(name);
  return match ? { difficulty: Number(match[1]) as 1 | 2 | 3, seed: Number(match[2]) } : null;
}

/**
 * A supply by chance, the same for the same name: a fault by its prior, what it usually takes along by the knowledge's links,
 * symptoms by how often they show. With more difficulty a second fault, or a part that only looks bad. One that the application
 * cannot decide by any test that its bench allows is thrown away.
 */
export function* madeSteps(
  difficulty: 1 | 2 | 3,
  seed: number,
): Generator<void, { supply: PracticeSupply; best: PolicyRun }> {
  const random = seededRandom(seed * 31 + difficulty * 7919);
  for (let attempt = 0; ; attempt++) {
    const recipe = drawn(difficulty, seed, random);
    if (!recipe) continue;
    const supply = supplyOf(recipe);
    if (![...truthOf(supply).values()].includes(true)) continue;
    const best = yield* bestSteps(supply);
    if (isDecided(supply, best) || attempt >= mostTries) {
      if (attempt >= mostTries) throw new Error(`No supply of difficulty ${difficulty} came of seed ${seed}.`);
      return { supply, best };
    }
    yield;
  }
}

/** Whether the best way through it ends on the right side for every part. */
export const isDecided = (supply: PracticeSupply, { chances }: Pick<PolicyRun, "chances">): boolean =>
  [...truthOf(supply)].every(([at, isBad]) => (chances.get(at) ?? 0) >= 0.5 === isBad);

function drawn(difficulty: 1 | 2 | 3, seed: number, random: () => number): Recipe | null {
  const names = Object.keys(bases) as BaseName[];
  const name = names[Math.floor(random() * names.length)] as BaseName;
  const { scenario, deviceKind } = bases[name];
  const draw: Draw = { scenario, random };
  const knowledge = faultKnowledge(scenario.builtAs ?? null, deviceKind).filter((fault) => harms[fault.code]);
  const byPrior = () => {
    let left = random() * knowledge.reduce((sum, fault) => sum + fault.prior, 0);
    return knowledge.find((fault) => {
      left -= fault.prior;
      return left < 0;
    });
  };
  const first = byPrior();
  if (!first) return null;
  const faults = [first];
  if (difficulty > 1) {
    for (const [code, chance] of Object.entries(first.causes)) {
      const caused = knowledge.find((fault) => fault.code === code);
      if (caused && random() < chance) faults.push(caused);
    }
  }
  if (difficulty === 3 && faults.length === 1) {
    const second = byPrior();
    if (second && second.code !== first.code) faults.push(second);
  }
  let harm: Harm = {};
  for (const fault of faults) {
    const own = harms[fault.code]?.(draw);
    if (!own) return null;
    harm = merged(harm, own);
  }
  if (difficulty === 3) {
    const sound = pick(
      draw,
      scenario.capacitors.filter((part) => !harm.fates?.[part.at]),
    );
    if (sound && random() < 0.5)
      harm = merged(harm, { looks: { [sound.at]: ["sleeve shrunk, looks a little domed", "sleeve_damaged"] } });
  }
  const state = stateOf(supplyOf({ ...blank, ...harm, base: name, difficulty, seed: 1 }));
  const isTellable = (code: string) => fits(code, state) && (isLit(deviceKind) || !litSymptoms.includes(code));
  const chanceOf = (code: string) => Math.max(...faults.map((fault) => fault.shows[code] ?? 0));
  const likely = symptomCodes.filter((code) => isTellable(code) && chanceOf(code) > 0);
  const drawnSymptoms = likely.filter((code) => random() < chanceOf(code)).slice(0, 4);
  const [surest] = [...likely].sort((a, b) => chanceOf(b) - chanceOf(a));
  const symptoms = drawnSymptoms.length > 0 ? drawnSymptoms : surest ? [surest] : [];
  if (symptoms.length === 0) return null;
  const told = symptoms.map((code) => symptomLabels[code] ?? code);
  const bad = [...Object.keys(harm.fates ?? {}), ...Object.keys(harm.devices ?? {}), ...Object.keys(harm.weak ?? {})];
  return {
    ...harm,
    ...{ name: `made-${difficulty}-${seed}`, base: name, difficulty, symptoms },
    seed: 1000 + (seed % 100_000),
    title: `${bases[name].deviceModel}, number ${seed}`,
    story: `The owner says: ${told.join("; ")}.`,
    answer: bad.length > 0 ? `Bad: ${bad.join(", ")}.` : "Nothing of the supply is bad: what hangs on it is.",
  };
}
