import { describe, expect, it } from "vitest";
import { sampleNet, samplePart, samplePosition, sampleRules } from "../../testing/sampleJob";
import { bankOf } from "./bank";
import { currentPart, foundPart } from "./board";
import { deviceTestOf, deviceTests } from "./deviceTests";
import { rippleLimitVolts } from "./rippleLimit";
import { sectionFacts } from "./sections";

describe("what sits at a place", () => {
  const removedAt = "2026-11-23T10:00:00Z";
  const parts = [
    samplePart("C1", { removedAt }),
    samplePart("C1", { id: "new-C1", origin: "replacement" }),
    samplePart("C2"),
    samplePart("C3", { removedAt }),
  ];
  it("is what was not taken out, and what was found stays what was found", () => {
    expect(currentPart(parts, "at-C1")?.id).toBe("new-C1");
    expect(foundPart(parts, "at-C1")?.id).toBe("part-C1");
    expect(currentPart(parts, "at-C3")).toBeUndefined();
    expect(foundPart(parts, "at-C9")).toBeUndefined();
  });
  it("hangs together with the fitted electrolytics of its net", () => {
    const places = [
      samplePosition("C1"),
      samplePosition("C2"),
      samplePosition("C3"),
      samplePosition("C4", { netId: "net-5" }),
      samplePosition("C5", { kind: "film" }),
      samplePosition("C6", { netId: null }),
    ];
    const bank = (designator: string) => {
      const place = places.find((one) => one.designator === designator) as (typeof places)[number];
      return bankOf(place, places, parts).map((one) => one.designator);
    };
    expect(bank("C1")).toEqual(["C1", "C2"]);
    // An empty place asks for itself, and nobody else counts it.
    expect(bank("C3")).toEqual(["C1", "C2", "C3"]);
    expect(bank("C4")).toEqual(["C4"]);
    expect(bank("C6")).toEqual(["C6"]);
  });
});

describe("rippleLimitVolts", () => {
  const rules = { ...sampleRules.rail, rippleLimitRatio: 0.01, rippleLimitLowRailVolts: 0.05 };
  it.each([
    [{ nominalVolts: 12, rippleLimitVolts: 0.3 }, 0.3],
    [{ nominalVolts: 12 }, 0.12],
    [{ nominalVolts: -12 }, 0.12],
    [{ nominalVolts: 6 }, 0.05],
    [{ nominalVolts: -5 }, 0.05],
    [{ nominalVolts: 6.1 }, 0.061],
    [{ nominalVolts: 0 }, null],
    [{ nominalVolts: null }, null],
    [{ nominalVolts: null, rippleLimitVolts: 0.2 }, 0.2],
  ])("of %o is %s", (net, limit) => {
    const found = rippleLimitVolts(sampleNet({ rippleLimitVolts: null, ...net }), rules);
    if (limit === null) expect(found).toBeNull();
    else expect(found).toBeCloseTo(limit, 12);
  });
  it("goes by share on low rails too where the house has no millivolts for them", () => {
    const net = sampleNet({ nominalVolts: 5, rippleLimitVolts: null });
    expect(rippleLimitVolts(net, { ...rules, rippleLimitLowRailVolts: 0 })).toBeCloseTo(0.05, 12);
    expect(rippleLimitVolts(net, { ...rules, rippleLimitRatio: 0.02, rippleLimitLowRailVolts: 0 })).toBeCloseTo(
      0.1,
      12,
    );
  });
});

describe("the usual tests of other parts", () => {
  it("are these, pin by pin, with what a sound part reads", () => {
    const lines = Object.entries(deviceTests).map(([kind, tests]) =>
      [
        kind,
        ...tests.map(({ code, terminals, quantity, band, isLive, isOptional }) =>
          [
            code,
            terminals || "whole",
            quantity,
            band ? `${band.low}..${band.high}` : "open",
            ...(isLive ? ["live"] : []),
            ...(isOptional ? ["optional"] : []),
          ].join(" "),
        ),
      ].join(" | "),
    );
    expect(lines).toMatchInlineSnapshot(`
      [
        "fuse | fuse_through 1,2 resistance 0..12",
        "thermal-fuse | fuse_through 1,2 resistance 0..2",
        "ptc | ptc_cold 1,2 resistance 0.1..500",
        "relay | relay_coil coil resistance 20..20000 | relay_contact contact resistance 1000..200000000",
        "film | film_insulated 1,2 resistance 1000..200000000",
        "varistor | varistor_open 1,2 resistance 200000..200000000",
        "zener | junction_forward A,K diode_drop 0.35..0.9 | junction_backward K,A diode_drop open",
        "ntc | ntc_cold 1,2 resistance 1..50",
        "bridge | junction_forward L,+ diode_drop 0.35..0.8 | junction_forward N,+ diode_drop 0.35..0.8 | junction_forward -,L diode_drop 0.35..0.8 | junction_forward -,N diode_drop 0.35..0.8 | bridge_across +,- diode_drop open",
        "diode | junction_forward A,K diode_drop 0.1..0.8 | junction_backward K,A diode_drop open | junction_forward A2,K diode_drop 0.1..0.8 optional | junction_backward K,A2 diode_drop open optional",
        "transistor | channel_off D,S resistance 10000..200000000 | gate_insulated G,S resistance 1000..200000000 | drain_gate_insulated D,G resistance 10000..200000000",
        "resistor | resistor_value 1,2 resistance open",
        "ic | supply_not_shorted VCC,GND resistance 500..200000000 | supply_least VCC,GND least dc_voltage 8..24 live | supply_most VCC,GND most dc_voltage 8..24 live",
        "optocoupler | coupler_lamp A,K diode_drop 0.45..1.4 | coupler_switches C,E resistance 0..5000 optional",
        "transformer | winding_through 1,2 resistance 0.01..20 | winding_rings rings tester_band open optional",
        "choke | winding_through 1,2 resistance 0..2",
        "fan | fan_turns whole observation open",
        "regulator | regulator_out OUT,GND resistance 50..200000000 | supply_least OUT,GND least dc_voltage open live | supply_most OUT,GND most dc_voltage open live",
      ]
    `);
  });
  it("are found by their pins; without pins the first one is meant", () => {
    expect(deviceTestOf("transistor", "G,S")?.code).toBe("gate_insulated");
    expect(deviceTestOf("transistor", null)?.code).toBe("channel_off");
    expect(deviceTestOf("transistor", "S,G")).toBeUndefined();
    expect(deviceTestOf("heat-sink", null)).toBeUndefined();
  });
});

describe("a section", () => {
  it("says which side of the barrier it is on, and whether it takes low-ESR parts only", () => {
    const of = (is: "isMainsSide" | "isSwitchingOutput") =>
      Object.entries(sectionFacts)
        .filter(([, facts]) => facts[is])
        .map(([section]) => section);
    expect(of("isMainsSide")).toEqual(["bulk", "pfc", "vcc", "gate"]);
    expect(of("isSwitchingOutput")).toEqual(["standby", "output", "output-post", "board-regulator"]);
    expect(
      Object.entries(sectionFacts).map(([section, facts]) => `${section} ${facts.positionClass}`),
    ).toMatchInlineSnapshot(`
        [
          "bulk mains_bulk",
          "pfc pfc_bulk",
          "vcc vcc",
          "standby standby_out",
          "output main_pre",
          "output-post main_post",
          "feedback feedback",
          "gate gate_drive",
          "board-regulator main_post",
          "linear-regulator main_post",
          "other main_post",
        ]
      `);
  });
});
