import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { sampleNet, sampleRules } from "../../testing/sampleJob";
import { noLabel } from "../proof/labelLimits";
import { proposedRun } from "./proposedRun";
import { loadedSeconds, type RunEvent, runState, secondsLeft, stepFinding } from "./runCourse";
import { endOrder, mayGoOn, ownTimeouts } from "./runOrder";
import { leastAmps, type RunPlan, runPlanFault } from "./runPlan";
import { type RunSample, setAmpsOf, stopBecause, watchRun } from "./watchRun";

const nets = [
  sampleNet({ id: "a", section: "output", nominalVolts: 12, fullLoadAmps: 2 }),
  sampleNet({ id: "b", section: "output", nominalVolts: 5, fullLoadAmps: 4 }),
];
const plan: RunPlan = {
  kind: "load_run",
  steps: [
    { loads: [amps("a", 1), amps("b", 0.4)], dwellSeconds: 60 },
    { loads: [amps("a", 2), amps("b", 0.4)], dwellSeconds: 60 },
  ],
  sampleSeconds: 1,
  rails: [
    { netId: "a", loadId: "load 1", lowVolts: 11.4, highVolts: 12.6, mostAmps: 2.2, heldVolts: null },
    { netId: "b", loadId: "load 2", lowVolts: 4.75, highVolts: 5.25, mostAmps: 4.4, heldVolts: null },
  ],
  mainsId: "mains",
  mostInputWatts: 60,
  ripple: { scopeId: "scope", netId: "a", mostVolts: 0.24 },
  spots: [{ thermometerId: "spot", targetKind: "part", targetId: "C1", mostCelsius: 85 }],
  mostKelvinPerMinute: 10,
};
function amps(netId: string, value: number) {
  return { netId, amps: value };
}
const good = (seconds: number, more: Partial<RunSample> = {}): RunSample => ({
  ...{ seconds, step: 0, stepSeconds: seconds, isPaused: false, isMainsOn: true },
  rails: [
    { netId: "a", volts: 12.02, amps: 1, setAmps: 1, isOn: true },
    { netId: "b", volts: 5.01, amps: 0.4, setAmps: 0.4, isOn: true },
  ],
  ...{ inputWatts: 18, rippleVolts: 0.05, celsius: [40], ...more },
});
const railA = (more: object, b: object = {}) => ({
  rails: good(0).rails.map((one) => ({ ...one, ...(one.netId === "a" ? more : b) })),
});
const watch = (...samples: RunSample[]) => watchRun(plan, samples);

describe("a plan of a run", () => {
  const fault = (more: Partial<RunPlan>, watts: number | null = null, isOverload = false) =>
    runPlanFault({ ...plan, ...more }, nets, { ...noLabel, watts }, isOverload)?.code ?? null;
  it("stands where each load is within promise and label, and each step holds three samples", () => {
    expect(fault({})).toBeNull();
    expect(fault({ steps: [{ loads: [amps("a", 1)], dwellSeconds: 3 }] })).toBeNull();
    expect(fault({ steps: [{ loads: [amps("a", 1)], dwellSeconds: 2.9 }] })).toBe("dwell_below_sample");
    expect(fault({ steps: [{ loads: [amps("a", 2.1)], dwellSeconds: 60 }] })).toBe("above_promise");
    expect(fault({ steps: [{ loads: [amps("a", 2.1)], dwellSeconds: 60 }] }, null, true)).toBeNull();
    expect(fault({}, 20)).toBe("above_label");
    expect(fault({ steps: [{ loads: [amps("a", -1)], dwellSeconds: 60 }] })).toBe("below_zero");
    expect(fault({ steps: [{ loads: [amps("c", 1)], dwellSeconds: 60 }] })).toBe("not_a_rail");
    expect(fault({ steps: [] })).toBe("no_step");
    expect(fault({ rails: [] })).toBe("no_rail");
    expect(fault({ mainsId: "load 1" })).toBe("instrument_twice");
    expect(fault({ rails: [plan.rails[0] as never, { ...plan.rails[0], loadId: "load 3" } as never] })).toBe(
      "instrument_twice",
    );
    expect(fault({ ripple: { scopeId: "scope", netId: "c", mostVolts: null } })).toBe("ripple_elsewhere");
    expect(fault({ rails: [{ ...plan.rails[0], lowVolts: 13 } as never, plan.rails[1] as never] })).toBe(
      "limits_crossed",
    );
  });
  it("never leaves a rail below its least load, nor a current output open", () => {
    const [a, b] = nets;
    const open = { ...plan, steps: [{ loads: [amps("a", 1)], dwellSeconds: 60 }] };
    const of = (more: object) => runPlanFault(open, [a as never, { ...b, ...more } as never], noLabel);
    expect(of({})).toBeNull();
    expect(of({ leastLoadAmps: 0.2 })).toEqual({ code: "below_least_load", netId: "b" });
    expect(of({ isCurrentOutput: true })?.code).toBe("below_least_load");
    expect(leastAmps({ ...b, leastLoadAmps: 9 } as never)).toBe(4);
    expect(setAmpsOf(plan, 1, false, () => 0.1).map((one) => one.amps)).toEqual([2, 0.4]);
    expect(setAmpsOf(plan, 1, true, () => 0.1).map((one) => one.amps)).toEqual([0.1, 0.1]);
  });
});

describe("the run that is proposed", () => {
  const rules = sampleRules.rail;
  const question = {
    ...{ kind: "load_run" as const, nets, label: noLabel, rules, mainsId: "mains", scope: null, spots: [] },
    loads: [
      { netId: "a", loadId: "load 1" },
      { netId: "b", loadId: "load 2" },
    ],
    ...{ dwellSeconds: 60, mostKelvinPerMinute: 10 },
  };
  it("goes through every share of each rail and then all together, and can be run as it stands", () => {
    const proposed = proposedRun({ ...question, scope: { scopeId: "scope", netId: "a" } });
    expect(proposed.steps).toHaveLength(11);
    expect(proposed.steps.at(-1)?.loads).toEqual([amps("a", 2), amps("b", 4)]);
    expect(proposed.rails).toEqual([
      { netId: "a", loadId: "load 1", lowVolts: 10.8, highVolts: 13.2, mostAmps: 2.2, heldVolts: null },
      { netId: "b", loadId: "load 2", lowVolts: 4.5, highVolts: 5.5, mostAmps: 4.4, heldVolts: null },
    ]);
    // 44 W out, at 60 %, and ten beside.
    expect(proposed.mostInputWatts).toBe(84);
    expect(proposed.ripple).toEqual({ scopeId: "scope", netId: "a", mostVolts: 1.2 });
    expect(runPlanFault(proposed, nets, noLabel)).toBeNull();
  });
  it("keeps to the label, to the rails that have a load, and to the load of a burn-in", () => {
    const labelled = proposedRun({ ...question, label: { ...noLabel, watts: 22 } });
    expect(labelled.steps.at(-1)?.loads).toEqual([amps("a", 1), amps("b", 2)]);
    expect(runPlanFault(labelled, nets, { ...noLabel, watts: 22 })).toBeNull();
    const one = proposedRun({
      ...question,
      loads: question.loads.slice(0, 1),
      scope: { scopeId: "scope", netId: "b" },
    });
    expect(one.steps.map((step) => step.loads)).toEqual([0, 0.5, 1, 1.5, 2].map((value) => [amps("a", value)]));
    expect(one.ripple).toBeNull();
    const burn = proposedRun({ ...question, kind: "burn_in", dwellSeconds: 7200, mainsId: null });
    expect(burn).toMatchObject({ sampleSeconds: 5, mostInputWatts: null });
    expect(burn.steps).toEqual([{ loads: [amps("a", 2), amps("b", 4)], dwellSeconds: 7200 }]);
    expect(proposedRun({ ...question, loads: [] }).steps).toEqual([]);
  });
  it("keeps to what the label counts together", () => {
    const label = { watts: null, groups: [{ netIds: ["a", "b"], watts: 33 }] };
    const grouped = proposedRun({ ...question, label });
    expect(grouped.steps.at(-1)?.loads).toEqual([amps("a", 1.5), amps("b", 3)]);
    expect(runPlanFault(grouped, nets, label)).toBeNull();
    expect(runPlanFault(proposedRun(question), nets, label)?.code).toBe("above_combined");
  });
  it("goes beyond the promise only where that is meant, and then says so to its loads and limits", () => {
    const over = proposedRun({ ...question, isOverloadMeant: true, label: { ...noLabel, watts: 44 } });
    expect(over.steps).toHaveLength(12);
    expect(over.steps.at(-1)?.loads).toEqual([amps("a", 2.2), amps("b", 4.4)]);
    expect(over.rails.map((one) => one.mostAmps)).toEqual([2.42, 4.84]);
    expect(runPlanFault(over, nets, { ...noLabel, watts: 44 }, true)).toBeNull();
    expect(runPlanFault(over, nets, { ...noLabel, watts: 44 })?.code).toBe("above_promise");
    expect(proposedRun({ ...question, kind: "burn_in", isOverloadMeant: true }).steps[0]?.loads).toEqual([
      amps("a", 2),
      amps("b", 4),
    ]);
  });
  it("holds a current output by its volts, through every step and never open", () => {
    const [a, b] = nets;
    const light = { ...b, isCurrentOutput: true } as never;
    const proposed = proposedRun({ ...question, nets: [a as never, light], isOverloadMeant: true });
    expect(proposed.rails.map((one) => one.heldVolts)).toEqual([null, 5]);
    expect(proposed.steps.every((step) => step.loads.find((one) => one.netId === "b")?.amps === 4)).toBe(true);
    expect(setAmpsOf(proposed, 0, false, () => 0)[1]).toMatchObject({ heldVolts: 5, amps: 4 });
  });
  it("takes volts by their amount", () => {
    const [a] = nets;
    const minus = { ...a, nominalVolts: -12 } as never;
    const { rails } = proposedRun({ ...question, nets: [minus], rules: { ...rules, negativeToleranceRatio: 0.1 } });
    expect(rails).toMatchObject([{ lowVolts: 9.6, highVolts: 13.2 }]);
  });
});

describe("a run is watched", () => {
  it("and goes on while all is within its limits", () => {
    expect(watchRun(plan, [])).toBeNull();
    expect(watch(good(9), good(10))).toBeNull();
  });
  it.each([
    ["over_voltage", railA({ volts: -12.7 }), "a", 12.7, 12.6],
    ["over_current", railA({ amps: 2.3 }), "a", 2.3, 2.2],
    ["over_power", { inputWatts: 61 }, null, 61, 60],
    ["over_temperature", { celsius: [85.1] }, "C1", 85.1, 85],
    ["mains_gone", { isMainsOn: false }, null, null, null],
    ["load_gone", railA({ isOn: false }), "a", null, null],
  ] as const)("and ends at once with %s", (code, more, subjectId, value, limit) => {
    expect(watch(good(0, more))).toEqual({ code, subjectId, value, limit });
  });
  it.each([
    ["under_voltage", railA({ volts: 11.3 })],
    ["load_lies", railA({ amps: 0.7 })],
    ["no_probe", { rippleVolts: null }],
    ["no_probe", { celsius: [null] }],
    ["over_ripple", { rippleVolts: 0.25 }],
    ["watts_contradict", { inputWatts: 13 }],
  ] as const)("and ends with %s where it stands in two samples of a settled step", (code, more) => {
    expect(watch(good(9), good(10, more))).toBeNull();
    expect(watch(good(2), good(3, more))).toBeNull();
    expect(watch(good(1, more), good(2, more))).toBeNull();
    expect(watch(good(9, more), good(10, { ...more, step: 1 }))).toBeNull();
    expect(watch(good(9, more), good(10, { ...more, isPaused: true }))).toBeNull();
    expect(watch(good(9, more), good(10, more))?.code).toBe(code);
  });
  it("a load that is held by its volts draws what the output gives", () => {
    const held = { ...plan, rails: plan.rails.map((one) => ({ ...one, heldVolts: one.netId === "a" ? 12 : null })) };
    const less = railA({ amps: 0.7 });
    expect(watchRun(held, [good(9, less), good(10, less)])).toBeNull();
    expect(watchRun(held, [good(9, railA({ amps: 2.3 }))])?.code).toBe("over_current");
  });
  it("a load that is off at nought is no load that went", () => {
    expect(watch(good(0, railA({ amps: 0, setAmps: 0, isOn: false })))).toBeNull();
  });
  it("a supply that gives less than a wattmeter can tell is not called a liar", () => {
    const idle = { ...railA({ amps: 0.2, setAmps: 0.2 }), inputWatts: 0 };
    expect(watch(good(9, idle), good(10, idle))).toBeNull();
  });
  it("heat that rises too fast ends it before its limit is met, noise does not", () => {
    const rising = (perMinute: number, wobble: number) =>
      Array.from({ length: 31 }, (_, n) => good(n, { celsius: [40 + (perMinute * n) / 60 + (n % 2) * wobble] }));
    expect(watchRun(plan, rising(11, 0))).toMatchObject({ code: "heat_too_fast", subjectId: "C1", limit: 10 });
    expect(watchRun(plan, rising(9.5, 0))).toBeNull();
    expect(watchRun(plan, rising(10.5, 3))).toBeNull();
    // Over less than half of the window nothing is told.
    expect(watchRun(plan, rising(60, 0).slice(0, 14))).toBeNull();
    expect(watchRun(plan, rising(60, 0).slice(0, 17))?.code).toBe("heat_too_fast");
    // What lies further back than the window does not count.
    expect(watchRun(plan, [good(-60, { celsius: [-200] }), ...rising(0, 0)])).toBeNull();
  });
  test.prop([fc.integer({ min: 0, max: 60 }), fc.double({ min: 12.61, max: 60, noNaN: true })])(
    "no history makes too many volts good",
    (count, volts) => {
      const before = Array.from({ length: count }, (_, n) => good(n));
      expect(watchRun(plan, [...before, good(count, railA({ volts }))])?.code).toBe("over_voltage");
    },
  );
});

describe("a run ends", () => {
  it("mains first, loads on until the rails are empty; otherwise only for too much current, or where nobody switches", () => {
    expect(endOrder(stopBecause("over_temperature"), true)).toEqual(["mains_off", "wait_for_rails", "loads_off"]);
    expect(endOrder(null, true)[0]).toBe("mains_off");
    expect(endOrder(stopBecause("over_current"), true)).toEqual(["loads_off", "mains_off"]);
    expect(endOrder(stopBecause("over_temperature"), false)).toEqual(["loads_off", "ask_for_mains_off"]);
  });
  it("or goes on after a restart only with all on, within limits, and after a short gap", () => {
    const found = { gapSeconds: 20, mostGapSeconds: 60, isMainsOn: true, areLoadsOn: true, stop: null };
    expect(mayGoOn(found)).toBe(true);
    expect(mayGoOn({ ...found, gapSeconds: 60 })).toBe(false);
    expect(mayGoOn({ ...found, gapSeconds: -1 })).toBe(false);
    expect(mayGoOn({ ...found, isMainsOn: false })).toBe(false);
    expect(mayGoOn({ ...found, isMainsOn: null })).toBe(false);
    expect(mayGoOn({ ...found, areLoadsOn: false })).toBe(false);
    expect(mayGoOn({ ...found, areLoadsOn: null })).toBe(false);
    expect(mayGoOn({ ...found, stop: stopBecause("over_voltage") })).toBe(false);
  });
  it("and left alone the instruments switch off by themselves, the mains before the loads", () => {
    expect(ownTimeouts(60)).toEqual({ mainsSeconds: 90, loadSeconds: 120 });
  });
});

describe("the course of a run", () => {
  const event = (kind: RunEvent["kind"], more: Partial<RunEvent> = {}): RunEvent => ({
    ...{ kind, seconds: 0, step: null, stop: null, ...more },
  });
  const ending = (code: "cancelled" | "server_gone" | "server_stopped" | "over_voltage") => [
    event("stopping", { stop: stopBecause(code) }),
    event("ended"),
  ];
  it("is what its events say", () => {
    const begun = [event("begun"), event("mains_on"), event("step_begun", { step: 0 })];
    const name = (...more: RunEvent[]) => runState([...begun, ...more]).name;
    expect(runState([...begun, event("step_begun", { step: 1 })])).toEqual({
      ...{ name: "running", step: 1, stop: null, isUnconfirmed: false },
    });
    expect(name(event("paused"))).toBe("paused");
    expect(name(event("paused"), event("continued"))).toBe("running");
    expect(name(event("stopping"))).toBe("ending");
    expect(name(event("stopping"), event("ended"))).toBe("done");
    expect(name(...ending("cancelled"))).toBe("cancelled");
    expect(name(...ending("server_gone"))).toBe("interrupted");
    expect(name(...ending("server_stopped"))).toBe("interrupted");
    expect(name(...ending("over_voltage"))).toBe("stopped");
    expect(runState([...begun, event("mains_unconfirmed")]).isUnconfirmed).toBe(true);
    expect(runState([...begun, event("loads_unconfirmed")]).isUnconfirmed).toBe(true);
  });
  it("tells what is left and how far it went", () => {
    expect(secondsLeft(plan, 0, 10)).toBe(110);
    expect(secondsLeft(plan, 1, 70)).toBe(0);
    const samples = [
      good(1),
      good(5),
      good(9, { isPaused: true, stepSeconds: 50 }),
      good(20, { step: 1, stepSeconds: 7 }),
    ];
    expect(loadedSeconds(samples)).toBe(12);
  });
  it("comes to the medians of each step's second half, and to the last heat", () => {
    const wild = [1, 2, 3, 4].map((n) => good(n, { ...railA({ volts: 3 }), inputWatts: 99, celsius: [20] }));
    const calm = [5, 6, 7, 8].map((n) => good(n, { ...railA({ volts: n === 6 ? 12.5 : 12 }), celsius: [20 + n] }));
    const other = good(9, { step: 1 });
    const found = stepFinding(plan, 0, [...wild, ...calm, other, good(10, { isPaused: true, inputWatts: 1 })]);
    expect(found).toEqual({
      rails: [
        { netId: "a", volts: 12, amps: 1 },
        { netId: "b", volts: 5.01, amps: 0.4 },
      ],
      // 14 W out of 18.
      ...{ rippleVolts: 0.05, inputWatts: 18, efficiencyRatio: 14.004 / 18, celsius: [28], seconds: 8 },
    });
    expect(stepFinding(plan, 1, wild)).toBeNull();
    expect(stepFinding(plan, 0, [good(1, { rippleVolts: null, inputWatts: null })])).toMatchObject({
      ...{ rippleVolts: null, inputWatts: null, efficiencyRatio: null },
    });
    // Next to nothing out: neither meter is sharp enough.
    const idle = railA({ amps: 0.1 }, { amps: 0.1 });
    expect(stepFinding(plan, 0, [good(1, idle)])?.efficiencyRatio).toBeNull();
  });
});
