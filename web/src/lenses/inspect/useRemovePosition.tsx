import { Button } from "@mantine/core";
import { notifications } from "@mantine/notifications";
import type { Position, Problem } from "@pale-cap/contract";
import type { ChangesFrom } from "../../job/useBoardEdit";

/** Takes a part off the board, with the way back beside the message. */
export function useRemovePosition(onEdit: (changesFrom: ChangesFrom) => Promise<Problem | undefined>) {
  return async ({ id, designator }: Pick<Position, "id" | "designator">) => {
    let removedVersion = 0;
    const problem = await onEdit(({ positions }) => {
      const version = positions.find((one) => one.id === id)?.version;
      removedVersion = (version ?? 0) + 1;
      return version === undefined
        ? undefined
        : [{ table: "position", operation: "delete", id, version, values: null }];
    });
    if (problem) return;
    const restore: ChangesFrom = () => [
      { table: "position", operation: "restore", id, version: removedVersion, values: null },
    ];
    notifications.show({
      message: (
        <span>
          {designator} taken off the list.{" "}
          <Button size="compact-xs" onClick={() => void onEdit(restore)}>
            Undo
          </Button>
        </span>
      ),
    });
  };
}
