import { type BoardValues, boardLimits } from "@pale-cap/contract";
import { useJob } from "../../job/JobContext";
import { useBoardEdit } from "../../job/useBoardEdit";
import { CommittedText } from "../../ui/CommittedText";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import classes from "./inspect.module.css";
import { PhotoBeneath } from "./PhotoBeneath";
import { ShapeFields } from "./ShapeFields";

/** The board itself: name, size and shape, where the barrier runs, how high the lid is, the photo beneath. */
export function BoardForm() {
  const { detail } = useJob();
  const [edit, { problem }] = useBoardEdit();
  const stored = detail.board;
  const change = (values: Partial<BoardValues>) =>
    void edit(({ board: { id, version, ...current } }) => [
      { table: "board", operation: "update", id, version, values: { ...current, ...values } },
    ]);
  const size = [0.01, boardLimits.boardMetres] as const;
  return (
    <Part title="Board">
      <ProblemNote problem={problem} />
      <CommittedText
        name="board name"
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
