import type { BoardPosition } from "../board/board";
import { isRegulator, type Section } from "../board/sections";
import { tradeConstants } from "../constants/tradeConstants";
import type { TestFinding } from "./findings";

/** Which finding a bad capacitor of a section is. */
export const capacitorFindings: Readonly<Partial<Record<Section, TestFinding>>> = {
  bulk: "bulk_capacitor_bad",
  pfc: "boost_capacitor_bad",
  vcc: "control_capacitor_bad",
  standby: "standby_capacitor_bad",
  output: "output_capacitor_bad",
  "board-regulator": "output_capacitor_bad",
  "linear-regulator": "output_capacitor_bad",
  "output-post": "post_capacitor_bad",
  feedback: "feedback_capacitor_bad",
};

const { mostFusibleOhms, leastBleederOhms } = tradeConstants.faults;
/** Resistors below this sense a current; the others drive a gate, divide or start. */
const [shuntBelowOhms, senseBelowOhms] = [5, 1];

const isOutput = (section: Section | undefined) =>
  section === "output" || section === "output-post" || section === "standby" || isRegulator(section);

/** Which transistor it is: of the boost stage, of an output, or the main switch. */
export function transistorSeat(section: Section | undefined): TestFinding {
  if (section === "pfc") return "boost_switch_reads_shorted";
  return isOutput(section) ? "output_switch_reads_shorted" : "switch_reads_shorted";
}

/** Which diode it is: boost, clamp at the bulk, Vcc, an output's rectifier or its clamp. */
export function diodeSeats(
  kind: "diode" | "zener",
  section: Section | undefined,
): { readonly shorted: TestFinding; readonly open: TestFinding | null } {
  if (kind === "zener") {
    return { shorted: isOutput(section) ? "output_clamp_reads_shorted" : "gate_parts_read_wrong", open: null };
  }
  if (section === "pfc") return { shorted: "boost_diode_reads_shorted", open: null };
  if (section === "bulk") return { shorted: "clamp_reads_shorted", open: null };
  if (section === "vcc") return { shorted: "control_rectifier_bad", open: "control_rectifier_bad" };
  if (section === "gate") return { shorted: "bootstrap_reads_wrong", open: "bootstrap_reads_wrong" };
  return { shorted: "rectifier_reads_shorted", open: "rectifier_reads_open" };
}

/** Which chip it is: of the standby, a gate driver, or the control chip. */
export function chipSeat(section: Section | undefined): TestFinding {
  if (section === "standby") return "standby_switcher_reads_shorted";
  return section === "gate" ? "gate_driver_reads_shorted" : "control_ic_reads_shorted";
}

/** Which film or ceramic capacitor it is: across the mains, in the path of a half bridge's power, or on an output. */
export function filmSeat(section: Section | undefined): TestFinding {
  if (section === "gate" || section === "other") return "resonant_capacitor_bad";
  return isOutput(section) ? "ceramic_reads_shorted" : "x_capacitor_bad";
}

/** Which resistor it is, by its marking and its place; null where none of the model's. */
export function resistorSeat({ markedOhms }: BoardPosition, section: Section | undefined): TestFinding | null {
  if (isOutput(section)) return markedOhms !== null && markedOhms >= shuntBelowOhms ? "gate_parts_read_wrong" : null;
  if (markedOhms === null) return section === "bulk" ? "fusible_reads_open" : "shunt_reads_open";
  if (markedOhms < senseBelowOhms) return "shunt_reads_open";
  // Without a rail only the lowest are surely at the input: a gate has some tens of ohms too.
  const mostOhms = section === "bulk" ? mostFusibleOhms : section === undefined ? mostFusibleOhms / 5 : 0;
  if (markedOhms <= mostOhms) return "fusible_reads_open";
  if (markedOhms < shuntBelowOhms) return "shunt_reads_open";
  if ((section === "bulk" || section === "pfc") && markedOhms >= leastBleederOhms) return "bleeder_reads_open";
  if (section === "vcc" && markedOhms >= leastBleederOhms) return "start_resistor_reads_open";
  return "gate_parts_read_wrong";
}

/** What the cold tests of a part can find. */
export function findingsOfPart(position: BoardPosition, section: Section | undefined): readonly TestFinding[] {
  switch (position.kind) {
    case "electrolytic": {
      const finding = section && capacitorFindings[section];
      if (section === "bulk") return ["bulk_capacitor_bad", "bulk_reads_open"];
      return finding ? [finding] : [];
    }
    case "fuse":
      return ["fuse_open"];
    case "varistor":
      return ["varistor_reads_shorted"];
    case "thermal-fuse":
      return ["thermal_fuse_reads_open"];
    case "relay":
      return ["relay_reads_bad"];
    case "ptc":
      return ["inrush_limiter_reads_open"];
    case "film":
      return filmSeat(section) === "x_capacitor_bad" ? ["x_capacitor_bad", "x_capacitor_low"] : [filmSeat(section)];
    case "ntc":
      return ["inrush_limiter_reads_open"];
    case "bridge":
      return ["bridge_reads_shorted", "bridge_reads_open"];
    case "diode":
    case "zener": {
      const { shorted, open } = diodeSeats(position.kind, section);
      return open && open !== shorted ? [shorted, open] : [shorted];
    }
    case "transistor":
      return [transistorSeat(section)];
    case "resistor": {
      const seat = resistorSeat(position, section);
      return seat ? [seat] : [];
    }
    case "ic":
      return [chipSeat(section)];
    case "optocoupler":
      return ["coupler_or_reference_bad"];
    case "transformer":
      return ["transformer_rings_short"];
    case "fan":
      return ["fan_found_stuck"];
    case "regulator":
      return ["regulator_output_wrong"];
    default:
      return [];
  }
}
