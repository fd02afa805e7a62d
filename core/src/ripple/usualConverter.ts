import type { BoardNet } from "../board/board";
import type { ConverterDescription, OutputConverter } from "../board/converterDescription";
import { unknownConverter } from "../board/converterDescription";
import { deviceProfiles } from "../facts/deviceProfiles";
import type { JobFacts } from "../facts/jobFacts";
/** How the converter behind a rail mostly is, until somebody says: by the device's topology and the rail's section. */
export function usualConverter(net: BoardNet, { device }: Pick<JobFacts, "device">): OutputConverter {
  const topology = device.topology ?? deviceProfiles[device.kind].topologies[0] ?? "flyback";
  if (net.section === "standby" || net.section === "vcc") return "flyback_discontinuous";
  if (net.section === "board-regulator") return "buck";
  if (net.section === "linear-regulator") return "linear";
  switch (topology) {
    case "forward_or_half_bridge":
      return "half_bridge";
    case "pfc_resonant_with_standby":
      return "resonant";
    case "pfc_forward_with_standby":
      return "forward";
    case "push_pull":
      return "push_pull";
    case "buck_board":
      return "buck";
    default:
      return "flyback_discontinuous";
  }
}

/** What is known of the converter behind a rail, the kind filled in. */
export function converterOf(net: BoardNet, facts: Pick<JobFacts, "device">): ConverterDescription {
  return net.converter ?? unknownConverter(usualConverter(net, facts));
}
