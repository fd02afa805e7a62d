import { Button, TextInput } from "@mantine/core";
import { type BoardValues, boardLimits, boardName, editableValues } from "@pale-cap/contract";
import { newId } from "../../api/newId";
import { useAppDispatch } from "../../app/store/hooks";
import { useAddBoardMutation, useRemoveBoardMutation } from "../../job/boardApi";
import { useJob } from "../../job/JobContext";
import { useShownBoardEdit } from "../../job/useBoardEdit";
import { boardShown } from "../../job/workplaceSlice";
import { CommittedText } from "../../ui/CommittedText";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import { useDraft } from "../../ui/useDraft";
import classes from "./inspect.module.css";
import { PhotoBeneath } from "./PhotoBeneath";
import { ShapeFields } from "./ShapeFields";

/** The board itself: name, size and shape, where the barrier runs, how high the lid is, the photo beneath. */
export function BoardForm() {
  const { shown: detail } = useJob();
  const [edit, { problem }] = useShownBoardEdit();
  const stored = detail.board;
  const change = (values: Partial<BoardValues>) =>
    void edit(({ board }) => {
      const { id, version } = board;
      const next = { ...editableValues("board", board), ...values };
      return [{ table: "board", operation: "update", id, version, values: next }];
    });
  const size = [0.01, boardLimits.boardMetres] as const;
  return (
    <Part title="Board">
      <ProblemNote problem={problem} />
      <OtherBoards />
      <CommittedText
        name={`board name ${stored.id}`}
        size="xs"
        label="Name and revision"
        value={stored.name ?? ""}
        onCommit={(text) => {
          const name = text.trim() || null;
          if (name !== stored.name) change({ name });
        }}
      />
      <div className={classes.pair}>
        <QuantityInput
          label="Width"
          size="xs"
          unit="mm"
          limits={size}
          value={stored.widthMetres}
          onCommit={(value) => value !== null && change({ widthMetres: value })}
        />
        <QuantityInput
          label="Depth"
          size="xs"
          unit="mm"
          limits={size}
          value={stored.depthMetres}
          onCommit={(value) => value !== null && change({ depthMetres: value })}
        />
        <QuantityInput
          label="Barrier from the left"
          size="xs"
          unit="mm"
          limits={[0, boardLimits.boardMetres]}
          value={stored.barrierMetres}
          onCommit={(barrierMetres) => change({ barrierMetres })}
        />
        <QuantityInput
          label="Room under the lid"
          size="xs"
          unit="mm"
          limits={[0.002, boardLimits.lengthMetres]}
          value={stored.lidHeightMetres}
          onCommit={(lidHeightMetres) => change({ lidHeightMetres })}
        />
      </div>
      <ShapeFields board={stored} onChange={change} />
      <PhotoBeneath onChange={change} />
    </Part>
  );
}

/** A unit often has more than one board: the host beside the supply, an inverter. Each has parts and rails of its own. */
function OtherBoards() {
  const { shown } = useJob();
  const { board, job } = shown;
  const [add, added] = useAddBoardMutation();
  const [remove, removed] = useRemoveBoardMutation();
  const dispatch = useAppDispatch();
  const [name, setName, dropName] = useDraft(`${job.id} new board`, "");
  const isBare = shown.positions.length === 0 && shown.nets.length === 0;

  async function submit() {
    const body = { id: newId(), name: name.trim() };
    if (body.name === "") return;
    if ((await add({ jobId: job.id, body })).error) return;
    dropName(name);
    dispatch(boardShown({ jobId: job.id, boardId: body.id }));
  }

  return (
    <form
      className={classes.otherBoards}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <TextInput
        size="xs"
        label="Another board in this unit"
        placeholder="host, inverter"
        maxLength={80}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <Button type="submit" size="xs" loading={added.isLoading} disabled={name.trim() === ""}>
        Add board
      </Button>
      {shown.boards.length > 1 && isBare && (
        <Button
          size="xs"
          loading={removed.isLoading}
          onClick={() => void remove({ jobId: job.id, body: { id: board.id, version: board.version } })}
        >
          Remove {boardName(board)}
        </Button>
      )}
      <ProblemNote problem={asProblem(added.error) ?? asProblem(removed.error)} />
    </form>
  );
}
