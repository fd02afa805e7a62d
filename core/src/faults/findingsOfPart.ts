import type { BoardPosition } from "../board/board";
import type { Section } from "../board/sections";
import type { TestFinding } from "./findings";

/** Which finding a bad capacitor of a section is. */
export const capacitorFindings: Readonly<Partial<Record<Section, TestFinding>>> = {
  bulk: "bulk_capacitor_bad",
  pfc: "boost_capacitor_bad",
  vcc: "control_capacitor_bad",
  standby: "standby_capacitor_bad",
  output: "output_capacitor_bad",
  "board-regulator": "output_capacitor_bad",
  "output-post": "post_capacitor_bad",
  feedback: "feedback_capacitor_bad",
};

/** Resistors below this sense a current; the others drive a gate, divide or start. */
export const shuntBelowOhms = 5;

/** What the cold tests of a part can find. */
export function findingsOfPart(position: BoardPosition, section: Section | undefined): readonly TestFinding[] {
  switch (position.kind) {
    case "electrolytic": {
      const finding = section && capacitorFindings[section];
      return finding ? [finding] : [];
    }
    case "fuse":
      return ["fuse_open"];
    case "ntc":
      return ["inrush_limiter_reads_open"];
    case "bridge":
      return ["bridge_reads_shorted", "bridge_reads_open"];
    case "diode":
      return ["rectifier_reads_shorted", "rectifier_reads_open"];
    case "transistor":
      return [section === "pfc" ? "boost_switch_reads_shorted" : "switch_reads_shorted"];
    case "resistor":
      return position.markedOhms !== null && position.markedOhms >= shuntBelowOhms
        ? ["gate_parts_read_wrong"]
        : ["shunt_reads_open"];
    case "ic":
      return ["control_ic_reads_shorted"];
    case "optocoupler":
      return ["coupler_or_reference_bad"];
    case "fan":
      return ["fan_found_stuck"];
    case "regulator":
      return ["regulator_output_wrong"];
    default:
      return [];
  }
}
