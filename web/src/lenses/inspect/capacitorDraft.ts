import { type BoardChange, editableValues, type FittedPartValues, type JobDetail, type Net } from "@pale-cap/contract";
import { foundPart, type Section, sectionFacts } from "@pale-cap/core";
import { newId } from "../../api/newId";
import { following } from "./designators";

/** A capacitor as a row of the table has it: its place and the part that was found there. */
export interface CapacitorDraft {
  readonly designator: string;
  /** An existing net's id, or `new:SECTION` for a net yet to be made. */
  readonly netChoice: string;
  readonly capacitanceFarads: number | null;
  readonly ratedVolts: number | null;
  readonly temperatureClassCelsius: number | null;
  readonly capacitorClass: FittedPartValues["capacitorClass"];
  readonly diameterMetres: number | null;
  readonly heightMetres: number | null;
  readonly pitchMetres: number | null;
  readonly xMetres: number | null;
  readonly yMetres: number | null;
  readonly stripeDegrees: number | null;
}

export const emptyDraft: CapacitorDraft = {
  designator: "C1",
  netChoice: "new:output",
  capacitanceFarads: null,
  ratedVolts: null,
  temperatureClassCelsius: 105,
  capacitorClass: "lowz",
  diameterMetres: null,
  heightMetres: null,
  pitchMetres: null,
  xMetres: null,
  yMetres: null,
  stripeDegrees: null,
};

/** The next row starts where the last one ended: next designator, same net, class and type. */
export function nextDraft(last: CapacitorDraft, netId: string | null): CapacitorDraft {
  return {
    ...emptyDraft,
    designator: following(last.designator),
    netChoice: netId ?? last.netChoice,
    temperatureClassCelsius: last.temperatureClassCelsius,
    capacitorClass: last.capacitorClass,
  };
}

/** Some fields of the part that was found at a position changed, from the row as it is stored. */
export function foundPartUpdate(
  { fittedParts }: Pick<JobDetail, "fittedParts">,
  positionId: string,
  values: Partial<FittedPartValues>,
): BoardChange[] | undefined {
  const part = foundPart(fittedParts, positionId);
  if (!part) return undefined;
  const { id, version } = part;
  return [
    {
      table: "fittedPart",
      operation: "update",
      id,
      version,
      values: { ...editableValues("fittedPart", part), ...values },
    },
  ];
}

/** The net that a choice stands for; a new one comes with the change that makes it. */
export function resolveNet(
  choice: string,
  nets: readonly Net[],
): { readonly id: string | null; readonly changes: BoardChange[] } {
  if (!choice.startsWith("new:")) return { id: choice || null, changes: [] };
  const section = choice.slice(4) as Section;
  const id = newId();
  const label = sectionFacts[section].label;
  const taken = nets.filter((net) => net.name === label || net.name.startsWith(`${label} `)).length;
  const values = {
    name: taken === 0 ? label : `${label} ${taken + 1}`,
    section,
    nominalVolts: null,
    fullLoadAmps: null,
    toleranceRatio: null,
    rippleLimitVolts: null,
    network: null,
    converter: null,
  };
  return { id, changes: [{ table: "net", operation: "insert", id, version: null, values }] };
}

/** The batch that puts a new capacitor on the board. */
export function insertion(draft: CapacitorDraft, nets: readonly Net[]) {
  const net = resolveNet(draft.netChoice, nets);
  const positionId = newId();
  const changes: BoardChange[] = [
    ...net.changes,
    {
      table: "position",
      operation: "insert",
      id: positionId,
      version: null,
      values: {
        designator: draft.designator.trim(),
        kind: "electrolytic",
        netId: net.id,
        xMetres: draft.xMetres,
        yMetres: draft.yMetres,
        outlineWidthMetres: null,
        outlineDepthMetres: null,
        pitchMetres: draft.pitchMetres,
        polarityMark: null,
        // The stripe of the part; the board's own mark is an entry of its own.
        boardNegativeDegrees: null,
        fixing: null,
        heatSource: null,
        outlineHeightMetres: null,
        markedOhms: null,
      },
    },
    {
      table: "fittedPart",
      operation: "insert",
      id: newId(),
      version: null,
      values: {
        positionId,
        capacitanceFarads: draft.capacitanceFarads,
        ratedVolts: draft.ratedVolts,
        temperatureClassCelsius: draft.temperatureClassCelsius,
        capacitorClass: draft.capacitorClass,
        diameterMetres: draft.diameterMetres,
        heightMetres: draft.heightMetres,
        stripeDegrees: draft.stripeDegrees,
        datasheetEsrOhms: null,
        toleranceRatio: null,
        series: null,
      },
    },
  ];
  return { changes, netId: net.id, positionId };
}
