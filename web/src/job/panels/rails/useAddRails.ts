import { type BoardChange, editableValues, type JobDetail, type Net, type Problem } from "@pale-cap/contract";
import { formatQuantity, type Section } from "@pale-cap/core";
import { useCallback } from "react";
import { newId } from "../../../api/newId";
import { useShownBoardEdit } from "../../useBoardEdit";

export interface NewRail {
  readonly name: string | null;
  readonly volts: number | null;
  readonly amps: number | null;
}

/**
 * Adds rails to the board, or lays the load on those that are there already: what was promised on a label or by a
 * customer is what Prove tests. Resolves to the problem, or undefined when it was stored.
 */
export function useAddRails() {
  const [edit, state] = useShownBoardEdit();
  const add = useCallback(
    (rails: readonly NewRail[]): Promise<Problem | undefined> =>
      edit((detail) => {
        const changes = rails.flatMap((rail) => railChanges(detail, rail));
        return changes.length > 0 ? changes : undefined;
      }),
    [edit],
  );
  return [add, state] as const;
}

export const railName = ({ name, volts }: NewRail): string =>
  name?.trim() || formatQuantity(volts ?? 0, "V").text.replace("\u00a0", " ");

/**
 * The rail of the same name; for one without a name the only output rail of the same volts. A name that is given and not
 * found is another rail, whatever its volts: 5 V standby is not 5 V.
 */
export function matchingNet(detail: JobDetail, rail: NewRail): Net | undefined {
  const named = detail.nets.find((net) => net.name.toLowerCase() === railName(rail).toLowerCase());
  const isNamed = (rail.name?.trim() ?? "") !== "";
  if (named || isNamed || rail.volts === null) return named;
  const alike = detail.nets.filter((net) => outputSections.includes(net.section) && net.nominalVolts === rail.volts);
  return alike.length === 1 ? alike[0] : undefined;
}

/** A name for a second rail that would be called the same. */
export function anotherName({ nets }: Pick<JobDetail, "nets">, name: string): string {
  const taken = new Set(nets.map((net) => net.name.toLowerCase()));
  let number = 2;
  while (taken.has(`${name} ${number}`.toLowerCase())) number++;
  return `${name} ${number}`;
}

const outputSections: readonly Section[] = [
  "output",
  "output-post",
  "standby",
  "board-regulator",
  "linear-regulator",
  "other",
];

export function railChanges(detail: JobDetail, rail: NewRail): BoardChange[] {
  const net = matchingNet(detail, rail);
  if (!net) {
    const name = railName(rail);
    const section = /stand|stby/i.test(name) ? "standby" : "output";
    const rest = { toleranceRatio: null, rippleLimitVolts: null, network: null, converter: null };
    const values = { name, section, nominalVolts: rail.volts, fullLoadAmps: rail.amps, ...rest } as const;
    return [{ table: "net", operation: "insert", id: newId(), version: null, values }];
  }
  const { id, version } = net;
  const stored = editableValues("net", net);
  const values = {
    ...stored,
    nominalVolts: stored.nominalVolts ?? rail.volts,
    fullLoadAmps: rail.amps ?? stored.fullLoadAmps,
  };
  const isSame = values.nominalVolts === stored.nominalVolts && values.fullLoadAmps === stored.fullLoadAmps;
  return isSame ? [] : [{ table: "net", operation: "update", id, version, values }];
}
