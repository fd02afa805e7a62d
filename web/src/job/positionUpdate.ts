import { type BoardChange, editableValues, type JobDetail, type PositionValues } from "@pale-cap/contract";

/** Some fields of a position changed, from the row as it is stored. */
export function positionUpdate(
  { positions }: Pick<JobDetail, "positions">,
  positionId: string,
  values: Partial<PositionValues>,
): BoardChange[] | undefined {
  const position = positions.find((one) => one.id === positionId);
  if (!position) return undefined;
  const { id, version } = position;
  return [
    {
      table: "position",
      operation: "update",
      id,
      version,
      values: { ...editableValues("position", position), ...values },
    },
  ];
}
