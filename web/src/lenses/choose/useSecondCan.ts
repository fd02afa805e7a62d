import type { JobDetail, Position, Problem } from "@pale-cap/contract";
import { editableValues } from "@pale-cap/contract";
import { foundPart, type SharedPlace } from "@pale-cap/core";
import { useCallback } from "react";
import { newId } from "../../api/newId";
import { useBoardEdit } from "../../job/useBoardEdit";

const suffix = "b";

/** The place of a can that was added beside another's: by its name, and that nothing was ever found there. */
export function secondCanOf(
  { positions, fittedParts }: Pick<JobDetail, "positions" | "fittedParts">,
  { boardId, designator }: Pick<Position, "boardId" | "designator">,
): Position | undefined {
  return positions.find(
    (one) => one.boardId === boardId && one.designator === `${designator}${suffix}` && !foundPart(fittedParts, one.id),
  );
}

/** Puts a place for a second can beside one on the board, once; gives its id, or what the server refused. */
export function useSecondCan() {
  const [edit] = useBoardEdit();
  return useCallback(
    async (beside: Position, { xMetres, yMetres }: SharedPlace): Promise<string | Problem> => {
      let id = newId();
      const problem = await edit((latest) => {
        const first = latest.positions.find((one) => one.id === beside.id);
        const known = first && secondCanOf(latest, first);
        if (!first) return undefined;
        if (known) {
          id = known.id;
          return undefined;
        }
        const values = {
          ...editableValues("position", first),
          ...{ designator: `${first.designator}${suffix}`, xMetres, yMetres, pitchMetres: null, fixing: null },
          note: `second can at ${first.designator}, on wires to its holes`,
        };
        return [{ table: "position", operation: "insert", id, version: null, values }];
      });
      return problem ?? id;
    },
    [edit],
  );
}
