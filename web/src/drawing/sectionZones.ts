import type { Net, Position } from "@pale-cap/contract";
import { type Section, sectionFacts } from "@pale-cap/core";

/** Where the parts of one section lie, in metres. */
export interface SectionZone {
  readonly section: Section;
  readonly label: string;
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Room around the middle of the outermost parts. */
const marginMetres = 0.011;

/** The box around the placed parts of each section that has any: a zone tells where they lie, not where a board is cut. */
export function sectionZones(nets: readonly Net[], positions: readonly Position[]): readonly SectionZone[] {
  const zones = new Map<Section, SectionZone>();
  for (const { netId, xMetres: x, yMetres: y } of positions) {
    const section = nets.find((net) => net.id === netId)?.section;
    if (!section || section === "other" || x === null || y === null) continue;
    const known = zones.get(section);
    zones.set(section, {
      section,
      label: sectionFacts[section].label,
      left: Math.min(known?.left ?? Infinity, x - marginMetres),
      top: Math.min(known?.top ?? Infinity, y - marginMetres),
      right: Math.max(known?.right ?? -Infinity, x + marginMetres),
      bottom: Math.max(known?.bottom ?? -Infinity, y + marginMetres),
    });
  }
  return [...zones.values()];
}
