import type { DeviceKind } from "./deviceKinds";

/** How supplies are built, as far as a bench needs to tell them apart before opening. */
export const topologies = [
  "flyback",
  "flyback_with_standby",
  "pfc_resonant_with_standby",
  "forward_or_half_bridge",
  "pfc_forward_with_standby",
  "self_oscillating",
  "push_pull",
  "series_dropper",
  "buck_board",
] as const;
export type Topology = (typeof topologies)[number];

export interface UsualRail {
  readonly name: string;
  readonly volts: number;
  readonly amps: number;
}

export interface DeviceProfile {
  /** Most likely first. */
  readonly topologies: readonly Topology[];
  readonly rails: readonly UsualRail[];
}

const rail = (name: string, volts: number, amps: number): UsualRail => ({ name, volts, amps });

/**
 * What a kind of device usually has inside: offered while nothing better is known, never imposed. Bench experience;
 * rough, the label and the meter decide.
 */
export const deviceProfiles: Readonly<Record<DeviceKind, DeviceProfile>> = {
  monitor: { topologies: ["flyback"], rails: [rail("5 V", 5, 2), rail("16 V backlight", 16, 2.5)] },
  television: {
    topologies: ["pfc_resonant_with_standby", "flyback_with_standby"],
    rails: [rail("5 V standby", 5, 1), rail("12 V", 12, 4), rail("24 V backlight", 24, 3)],
  },
  console: { topologies: ["flyback_with_standby", "forward_or_half_bridge"], rails: [rail("12 V", 12, 10)] },
  adapter: { topologies: ["flyback"], rails: [rail("19 V", 19, 3.4)] },
  "computer-supply": {
    topologies: ["pfc_forward_with_standby", "forward_or_half_bridge"],
    rails: [rail("5 V standby", 5, 2.5), rail("3.3 V", 3.3, 15), rail("5 V", 5, 15), rail("12 V", 12, 30)],
  },
  "small-appliance": {
    topologies: ["flyback", "series_dropper", "self_oscillating", "buck_board"],
    rails: [rail("5 V", 5, 0.5), rail("12 V", 12, 0.3)],
  },
  instrument: {
    topologies: ["flyback", "forward_or_half_bridge"],
    rails: [rail("5 V", 5, 3), rail("+12 V", 12, 1), rail("−12 V", -12, 1)],
  },
  industrial: {
    topologies: ["forward_or_half_bridge", "flyback", "pfc_resonant_with_standby"],
    rails: [rail("24 V", 24, 5)],
  },
  other: { topologies: ["flyback", "forward_or_half_bridge", "buck_board"], rails: [] },
};
