import type { FeedKind, PhotoKind, PlugPolarity } from "@pale-cap/contract";
import type { FamilyFinding, OwnStanding, TeardownKind, Topology } from "@pale-cap/core";
import { verdictLabels } from "./verdictWords";

export const topologyLabels: Readonly<Record<Topology, string>> = {
  flyback: "flyback",
  flyback_with_standby: "flyback with a standby supply",
  pfc_resonant_with_standby: "PFC, resonant half bridge, standby supply",
  forward_or_half_bridge: "forward or half bridge",
  pfc_forward_with_standby: "PFC, forward or half bridge, standby supply",
  self_oscillating: "flyback that drives itself, no control IC",
  push_pull: "push-pull",
  series_dropper: "capacitor or resistor in series with the mains, no isolation",
  buck_board: "buck regulators, no isolation",
};

export const feedKindLabels: Readonly<Record<FeedKind, string>> = {
  mains: "the mains, at its own volts",
  external_supply: "a supply of its own, d.c.",
  host: "the device it sits in, d.c.",
};

export const plugLabels: Readonly<Record<PlugPolarity, string>> = {
  centre_positive: "centre positive",
  centre_negative: "centre negative",
  other: "other",
};

export const photoKindLabels: Readonly<Record<PhotoKind, string>> = {
  label: "label",
  board_top: "board, parts side",
  board_bottom: "board, solder side",
  connectors: "connectors",
  opening: "opening",
  other: "other",
};

export const teardownLabels: Readonly<Record<TeardownKind, string>> = {
  screws: "screws",
  earth_screws: "earth screws",
  cable: "cable",
  seam: "glued seam",
  sheet: "insulating sheet",
  other: "other",
};

const standings: Readonly<Record<OwnStanding, string>> = {
  not_checked: "not checked here",
  not_on_board: "not on this board yet",
  the_same_here: "the same here",
  not_here: "not here",
};

export const standingWords = (own: OwnStanding): string => standings[own];

/** What was found on other units, as a thing to look at on this one. */
export function familyFindingWords(finding: FamilyFinding): string {
  const units = finding.unitNumbers.map((number) => String(number).padStart(4, "0")).join(", ");
  switch (finding.code) {
    case "part_bad":
      return `${finding.subject} ${finding.verdict === "failed" ? verdictLabels.failed : "goes out"} on ${units}`;
    case "rail_bad":
      return `${finding.subject} outside its limits on ${units}`;
    case "fuse_blown":
      return `Fuse blown or breaker tripped on ${units}: test for shorts before power`;
    case "bulk_stays_full":
      return `${finding.subject} stayed full on ${units}: the converter never started`;
    case "bulk_zero":
      return `${finding.subject} read zero from the start on ${units}`;
  }
}
