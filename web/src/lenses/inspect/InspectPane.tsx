import { cautions } from "@pale-cap/wording";
import type { ReactNode } from "react";
import { useJob } from "../../job/JobContext";
import { RailNetworks } from "../../job/panels/rails/RailNetworks";
import { RailTable } from "../../job/panels/rails/RailTable";
import { useTarget } from "../../job/useTarget";
import { Caution } from "../../ui/Caution";
import { Pane } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import { BoardForm } from "./BoardForm";
import { BoardTypeCard } from "./BoardTypeCard";
import { useBoardTypeOfJobQuery } from "./boardTypeApi";
import classes from "./inspect.module.css";
import { PapersCard } from "./PapersCard";
import { PartLooks } from "./PartLooks";
import { PositionsFile } from "./PositionsFile";

/** The selected part's signs and polarity mark; under it the rails and the board. */
export function InspectPane({ tools }: { readonly tools: ReactNode }) {
  const { charge, shown: detail } = useJob();
  const [target] = useTarget();
  const position = detail.positions.find((one) => one.id === target?.id);
  return (
    <Pane
      title={position ? <span className={classes.big}>{position.designator}</span> : "Inspect"}
      second={
        <>
          <BoardForm />
          <BoardTypeCard />
          <BoardTypePapersCard />
          <PositionsFile />
        </>
      }
    >
      {charge.name !== "verified" && detail.energyStores.length > 0 && <Caution>{cautions.chargeUnknown}</Caution>}
      {tools}
      {position ? (
        <PartLooks key={position.id} position={position} />
      ) : (
        <p className={text.soft}>
          Type the first capacitor into the table below; Enter adds it. On the board: drag to move, arrows to nudge, r
          to turn, Shift and click to mark several.
        </p>
      )}
      <RailTable title="Rails" />
      <RailNetworks />
    </Pane>
  );
}

/** Papers belong to the kind of board: they appear once this board is of one. */
function BoardTypePapersCard() {
  const { job, board } = useJob().shown;
  const { data: own } = useBoardTypeOfJobQuery({ jobId: job.id, boardId: board.id });
  return own ? <PapersCard boardTypeId={own.boardTypeId} /> : null;
}
