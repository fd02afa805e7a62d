import type { HandAct } from "@pale-cap/contract";
import { describe, expect, it } from "vitest";
import { Bench, instruments, LineSession } from "../index";
import { hasFailed } from "../virtualSupply/fatedFoil";
import { practise } from "./hands";
import { truthOf } from "./practiceSupply";
import { type Recipe, supplyOf } from "./recipe";
import { recipes } from "./supplies";

const named = (name: string) => recipes.find((one) => one.name === name) as Recipe;

/** A learner at one supply: hands, a meter and an ESR meter, and a clock that the test turns. */
function at(recipe: Recipe) {
  let seconds = 0;
  const supply = supplyOf(recipe);
  const bench = new Bench([supply.scenario], () => seconds);
  const hands = practise(bench, supply);
  const [meter, lcr] = [new LineSession(instruments.multimeter(bench)), new LineSession(instruments.lcr(bench))];
  lcr.take("CORR:SHOR");
  const pass = (more: number) => {
    seconds += more;
    bench.tick();
  };
  const act = (kind: HandAct["kind"], more: Partial<HandAct> = {}) => hands.do({ kind, ...more } as HandAct);
  const read = (session: LineSession, points: string, what: string) => {
    session.take("*CLS");
    session.take(`ROUT:PROB ${points}`);
    const value = Number(session.take(`MEAS:${what}?`));
    return { value, trouble: session.take("SYST:ERR?") ?? "" };
  };
  const codes = () => hands.happened.map((one) => one.code);
  const on = (lampWatts: number | null = null, isIsolated = false) =>
    act("mains", { isOn: true, lampWatts, isIsolated });
  const off = () => act("mains", { isOn: false });
  return { supply, bench, hands, meter, lcr, pass, act, read, codes, on, off };
}
const capacitor = (microfarads: number, volts: number, isReversed = false) => ({
  part: { microfarads, volts, capacitorClass: "lowz" as const, isReversed },
});

describe("practice supplies", () => {
  it("are thirty and more, of every shape, each with its own truth told in its answer", () => {
    expect(recipes.length).toBeGreaterThanOrEqual(30);
    expect(new Set(recipes.map((one) => one.base)).size).toBe(7);
    expect(new Set(recipes.map((one) => one.answer)).size).toBe(recipes.length);
    for (const recipe of recipes) {
      const supply = supplyOf(recipe);
      const bad = [...truthOf(supply)].filter(([, isBad]) => isBad).map(([name]) => name);
      const words: Readonly<Record<string, string>> = {
        F1: "fuse",
        CN1: recipe.base === "adapter" ? "lead" : "CN1",
        GL1: "glue",
      };
      for (const name of bad.filter((one) => one !== "outside")) {
        expect(recipe.answer, recipe.name).toContain(words[name] ?? name);
      }
      if (bad.length === 0) expect(recipe.answer, recipe.name).toMatch(/Nothing is wrong|No part is bad/);
    }
  });
  it("take the truth of a part from its foil: three times its own ESR, 70 % of its own C", () => {
    const [part] = supplyOf(named("nothing-wrong")).scenario.capacitors;
    if (!part) throw new Error("no part");
    const fated = (mode: "dry" | "leak", amount: number) =>
      hasFailed({ ...part, fate: { mode, amount, seriesRatio: 1 } });
    expect([fated("dry", 0.95), fated("dry", 0.74), fated("dry", 0.6)]).toEqual([false, false, true]);
    expect([fated("leak", 1e7), fated("leak", 1e3)]).toEqual([false, true]);
  });
  it("refuse a recipe that names what its board does not have", () => {
    expect(() => supplyOf({ ...named("nothing-wrong"), fates: { C99: ["dry", 0.3] } })).toThrow("there is no C99");
  });
});

describe("ohms on a charged bulk", () => {
  it("kill the meter, which reads nothing until there is another; a drained one does not", () => {
    const { act, read, meter, codes, on, off, pass } = at(named("drain-first"));
    on(60);
    pass(5);
    off();
    pass(2);
    const { trouble } = read(meter, "C3", "OHMS");
    expect(trouble).toMatch(/3\d\d V on the probes: it is dead/);
    expect(codes()).toEqual(["meter_killed"]);
    expect(read(meter, "C3", "DCV").trouble).toMatch(/dead/);
    expect(act("new_meter").minutes).toBe(15);
    // The new one touches nothing yet: what is still charged does not kill it too.
    expect(Number(meter.take("MEAS:OHMS?"))).toBe(9.9e37);
    expect(codes()).toEqual(["meter_killed"]);
    act("drain", { at: "Bulk", ohms: 2200 });
    act("wait", { minutes: 3 });
    act("drain", { at: null, ohms: null });
    expect(read(meter, "C3", "DCV").value).toBeLessThan(12);
    expect(read(meter, "C16", "OHMS").trouble).toMatch(/^0,/);
    expect(codes()).toEqual(["meter_killed"]);
  });
  it("are met by a hand too, once for each time, with what it would have got", () => {
    const { act, hands, on, off, pass } = at(named("drain-first"));
    on(60);
    pass(5);
    off();
    act("lift", { at: "C3" });
    act("move", { at: "C3" });
    const touches = hands.happened.filter((one) => one.code === "live_touch");
    expect(touches).toHaveLength(1);
    expect(touches[0]?.volts).toBeGreaterThan(300);
    expect(touches[0]?.joules).toBeGreaterThan(3);
    act("lift", { at: "C16" });
    expect(hands.happened.filter((one) => one.code === "live_touch")).toHaveLength(1);
  });
});

describe("power before the short test", () => {
  it("blows the new fuse; through a lamp it only lights", () => {
    const { act, on, off, codes } = at(named("fuse-and-transistor"));
    act("renew", { at: "F1" });
    act("renew", { at: "R9" });
    const [lamp] = on(60).told;
    expect(lamp).toMatchObject({ code: "lamp", flashRatio: 1, glowRatio: 1 });
    expect(codes()).toEqual([]);
    off();
    on(null);
    expect(codes()).toEqual(["power_untested", "fuse_blown"]);
  });
  it("is no power without a test once ohms were read in the primary", () => {
    const { read, meter, on, codes } = at(named("nothing-wrong"));
    expect(read(meter, "Q1.D,Q1.S", "OHMS").trouble).toMatch(/^0,/);
    on(null);
    expect(codes()).toEqual([]);
  });
  it("burns a new transistor beside what killed the old one, and not once that is new too", () => {
    const { act, read, meter, on, off, codes } = at(named("boost-diode"));
    for (const name of ["F1", "R1", "Q1"]) act("renew", { at: name });
    read(meter, "Q1.D,Q1.S", "OHMS");
    on(null);
    expect(codes()).toEqual(["fuse_blown", "new_part_burnt"]);
    off();
    for (const name of ["F1", "Q1", "D1"]) act("renew", { at: name });
    read(meter, "Q1.D,Q1.S", "OHMS");
    expect(on(null).told[0]?.code).toBe("no_lamp_runs");
    expect(codes()).toHaveLength(2);
  });
});

describe("the lamp", () => {
  it("flashes and dims on a sound supply, stays dark behind an open fuse", () => {
    const { on, off } = at(named("nothing-wrong"));
    const [lamp] = on(60).told;
    expect(lamp?.flashRatio).toBeGreaterThan(0.8);
    expect(lamp?.glowRatio).toBeLessThan(0.4);
    off();
    const dark = at({ ...named("nothing-wrong"), devices: { F1: "open" } }).on(60).told[0];
    expect(dark).toMatchObject({ flashRatio: 0, glowRatio: 0 });
  });
});

describe("a part the wrong way round", () => {
  const fitted = (isReversed: boolean, volts = 25) => {
    const learner = at(named("nothing-wrong"));
    learner.act("take_out", { at: "C13", isPreheated: true });
    learner.act("fit", { at: "C13", ...capacitor(470, volts, isReversed) });
    learner.read(learner.meter, "Q1.D,Q1.S", "OHMS");
    learner.on(null);
    learner.pass(3);
    learner.pass(3);
    return learner;
  };
  it("vents, shorts its rail and is seen; the right way round nothing happens", () => {
    const { codes, act, supply } = fitted(true);
    expect(supply.scenario.capacitors.some((one) => one.at === "C13")).toBe(true);
    expect(codes()).toEqual(["part_vented"]);
    expect(act("look", { at: "C13" }).told[0]?.words).toContain("vent open");
    expect(act("listen").told[0]?.code).toBe("ticks");
    expect(fitted(false).codes()).toEqual([]);
  });
  it("goes too where its rating is below the rail, only later", () => {
    const learner = fitted(false, 10);
    expect(learner.codes()).toEqual([]);
    learner.act("wait", { minutes: 1 });
    expect(learner.codes()).toEqual(["overvolted"]);
  });
});

describe("an earthed clip", () => {
  it("on hot ground trips the bench, behind a transformer or on the cold side it does not", () => {
    const clipped = (net: string, isIsolated: boolean) => {
      const { act, on, read, meter, codes, bench } = at(named("nothing-wrong"));
      read(meter, "Q1.D,Q1.S", "OHMS");
      act("clip", { at: net });
      on(null, isIsolated);
      return [codes(), bench.supply.state.isMainsOn];
    };
    expect(clipped("Bulk", false)).toEqual([["bench_tripped"], false]);
    expect(clipped("Bulk", true)).toEqual([[], true]);
    expect(clipped("5 V", false)).toEqual([[], true]);
  });
});

describe("a device on the output", () => {
  it("dies of a standby that stands high; read first, it was at least known", () => {
    const { act, on, read, meter, codes } = at(named("standby-high"));
    read(meter, "Q1.D,Q1.S", "OHMS");
    on(null);
    expect(read(meter, "5 V standby", "DCV").value).toBeGreaterThan(6);
    expect(act("host", { isOn: true }).told[0]?.code).toBe("host_fails");
    expect(codes()).toEqual(["host_killed"]);
  });
  it("works on a sound supply, and is warned of where nobody read the rails", () => {
    const { act, on, read, meter, codes } = at(named("nothing-wrong"));
    read(meter, "Q1.D,Q1.S", "OHMS");
    on(null);
    expect(act("host", { isOn: true }).told[0]?.code).toBe("host_works");
    expect(codes()).toEqual(["host_unchecked"]);
  });
});

describe("what is around a supply", () => {
  it("is told by trying it: the lamps, the lead, the device on a bench supply", () => {
    const told = (name: string, check: NonNullable<HandAct["check"]>) =>
      at(named(name)).act("check", { check }).told[0]?.code;
    expect(told("light-strip", "lamps")).toBe("check_bad");
    expect(told("light-strip", "bench_feed")).toBe("check_bad");
    expect(told("boost-asleep", "lamps")).toBe("check_good");
    expect(told("boost-asleep", "bench_feed")).toBe("check_good");
    expect(told("bulk-open", "lamps")).toBe("not_there");
    expect(told("bulk-open", "lead")).toBe("check_good");
    const broken = { ...named("adapter-cable"), weak: { CN1: { path: "19 V", opens: "always" as const } } };
    expect(at(broken).act("check", { check: "output_lead" }).told[0]?.code).toBe("check_bad");
    expect(told("adapter-cable", "output_lead")).toBe("check_good");
  });
});

describe("the iron", () => {
  it("warms a dried part so that it reads well for some minutes, and no longer", () => {
    const { act, read, lcr } = at(named("warmed-by-the-iron"));
    act("lift", { at: "C23", isPreheated: true });
    const warm = read(lcr, "C23,LIFTED", "ESR").value;
    act("wait", { minutes: 20 });
    const cold = read(lcr, "C23,LIFTED", "ESR").value;
    expect(cold / warm).toBeGreaterThan(2);
  });
  it("pulls a pad from a plane that nobody warmed, and the part stands there connected to nothing until it is mended", () => {
    const supply = named("nothing-wrong");
    const pulled = supplyOf(supply)
      .scenario.capacitors.map((one) => one.at)
      .filter((name) => {
        const { act, codes } = at(supply);
        act("take_out", { at: name });
        return codes().includes("pad_pulled");
      });
    expect(pulled.length).toBeGreaterThan(0);
    expect(pulled.length).toBeLessThan(9);
    const name = pulled[0] as string;
    const { act, hands, codes, bench } = at(supply);
    act("take_out", { at: name });
    act("fit", { at: name, ...capacitor(470, 450) });
    expect(codes()).toEqual(["pad_pulled"]);
    expect(hands.state.pulled).toEqual([name]);
    expect(bench.supply.isOff(name)).toBe(true);
    act("mend", { at: name });
    expect(bench.supply.isOff(name)).toBe(false);
    const gentle = at(supply);
    gentle.act("take_out", { at: name, isPreheated: true });
    expect(gentle.codes()).toEqual([]);
  });
});

describe("a part that is read", () => {
  it("has to lie as somebody says that it lies", () => {
    const { act, read, lcr } = at(named("masked-bank"));
    expect(read(lcr, "C12,LIFTED", "ESR").trouble).toContain("sits in the board");
    const masked = read(lcr, "C12,IN", "ESR").value;
    act("lift", { at: "C12", isPreheated: true });
    act("wait", { minutes: 20 });
    expect(read(lcr, "C12,IN", "ESR").trouble).toContain("off the board");
    expect(read(lcr, "C12,LIFTED", "ESR").value).toBeGreaterThan(5 * masked);
  });
});

describe("what comes and goes", () => {
  it("opens in the cold, and holds once its joint is made anew", () => {
    const { act, on, off, read, meter } = at(named("cold-joint"));
    read(meter, "Q1.D,Q1.S", "OHMS");
    expect(act("cool", { at: "Q1" }).told[0]?.code).toBe("moved_changes");
    expect(act("cool", { at: "C1" }).told[0]?.code).toBe("moved_nothing");
    act("cool", { at: "Q1" });
    expect(on(null).told[0]?.code).toBe("no_lamp_nothing");
    off();
    act("drain", { at: "Bulk", ohms: 2200 });
    act("wait", { minutes: 10 });
    act("resolder", { at: "Q1" });
    act("cool", { at: "Q1" });
    expect(on(null).told[0]?.code).toBe("no_lamp_runs");
  });
  it("trips a breaker through a hot thermistor, and not through a cold one", () => {
    const { act, on, off, read, meter, codes } = at(named("restarts-hot"));
    read(meter, "Q1.D,Q1.S", "OHMS");
    on(null);
    act("load", { at: "5 V", amps: 12 });
    act("wait", { minutes: 10 });
    off();
    act("drain", { at: "Bulk", ohms: 100 });
    act("wait", { minutes: 0.2 });
    act("drain", { at: null, ohms: null });
    on(null);
    expect(codes()).toEqual(["breaker_tripped"]);
    act("wait", { minutes: 20 });
    expect(on(null).told[0]?.code).toBe("no_lamp_runs");
  });
  it("takes the residual-current device only where earth has a way", () => {
    const { on, read, meter, codes } = at(named("trips-the-earth"));
    read(meter, "Q1.D,Q1.S", "OHMS");
    on(null);
    expect(codes()).toEqual(["earth_trip"]);
    expect(on(null, true).told[0]?.code).toBe("no_lamp_runs");
  });
});

describe("a bench that was started anew", () => {
  it("has the supply as it was left, with what happened", () => {
    const first = at(named("boost-diode"));
    for (const name of ["F1", "Q1"]) first.act("renew", { at: name });
    first.read(first.meter, "Q2.D,Q2.S", "OHMS");
    first.on(null);
    first.off();
    first.act("take_out", { at: "C31", isPreheated: true });
    first.act("fit", { at: "C31", ...capacitor(1000, 16) });
    first.act("lift", { at: "C32", isPreheated: true });
    const lasting = JSON.parse(JSON.stringify(first.hands.lasting)) as typeof first.hands.lasting;
    const second = at(named("boost-diode"));
    second.hands.restore(lasting);
    expect(second.hands.lasting).toEqual(lasting);
    expect(second.hands.state).toEqual(first.hands.state);
    expect(second.read(second.meter, "F1", "OHMS").value).toBeGreaterThan(1e6);
    expect(second.read(second.meter, "Q1.D,Q1.S", "OHMS").value).toBeLessThan(1);
    expect(second.bench.supply.wholeBoard.capacitors.find((one) => one.at === "C31")?.marking[0]).toBe(1000);
  });
});
