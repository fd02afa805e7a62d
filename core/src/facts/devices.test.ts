import { describe, expect, it } from "vitest";
import { deviceKinds } from "./deviceKinds";
import { deviceProfiles } from "./deviceProfiles";
import { visualSigns } from "./visualSigns";

describe("what a kind of device usually has inside", () => {
  it("is this, likeliest first", () => {
    const lines = deviceKinds.map((kind) => {
      const { topologies, rails } = deviceProfiles[kind];
      return [kind, topologies.join(" or "), ...rails.map((one) => `${one.name}: ${one.volts} V ${one.amps} A`)].join(
        " | ",
      );
    });
    expect(lines).toMatchInlineSnapshot(`
      [
        "monitor | flyback | 5 V: 5 V 2 A | 16 V backlight: 16 V 2.5 A",
        "television | pfc_resonant_with_standby or flyback_with_standby | 5 V standby: 5 V 1 A | 12 V: 12 V 4 A | 24 V backlight: 24 V 3 A",
        "console | flyback_with_standby or forward_or_half_bridge | 12 V: 12 V 10 A",
        "adapter | flyback | 19 V: 19 V 3.4 A",
        "computer-supply | pfc_forward_with_standby or forward_or_half_bridge | 5 V standby: 5 V 2.5 A | 3.3 V: 3.3 V 15 A | 5 V: 5 V 15 A | 12 V: 12 V 30 A",
        "small-appliance | flyback or series_dropper or self_oscillating or buck_board | 5 V: 5 V 0.5 A | 12 V: 12 V 0.3 A",
        "instrument | flyback or forward_or_half_bridge | 5 V: 5 V 3 A | +12 V: 12 V 1 A | −12 V: -12 V 1 A",
        "industrial | forward_or_half_bridge or flyback or pfc_resonant_with_standby | 24 V: 24 V 5 A",
        "other | flyback or forward_or_half_bridge or buck_board",
      ]
    `);
  });
});

it("one looks from the vent down to the joints", () => {
  expect(visualSigns.join(" ")).toMatchInlineSnapshot(
    `"domed vented burst crust leak base_lifted sleeve_damaged board_browned cracked_joint adhesive_brown"`,
  );
});
