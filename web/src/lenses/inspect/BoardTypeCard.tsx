import { Button, TextInput } from "@mantine/core";
import { path, routes } from "@pale-cap/contract";
import { deviceName, differenceWords } from "@pale-cap/wording";
import { newId } from "../../api/newId";
import { BundleLink } from "../../job/BundleLink";
import { useJob } from "../../job/JobContext";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import {
  useBoardTypeOfJobQuery,
  useBoardTypesQuery,
  useSaveBoardTypeMutation,
  useTakeBoardTypeMutation,
} from "./boardTypeApi";
import classes from "./inspect.module.css";

/** The board kept for the next unit of its kind, taken from an earlier one, or compared with it. */
export function BoardTypeCard() {
  const { shown: detail } = useJob();
  const [jobId, boardId] = [detail.job.id, detail.board.id];
  const isEmpty = detail.positions.length === 0;
  const { data: own } = useBoardTypeOfJobQuery({ jobId, boardId });
  const { data: types = [] } = useBoardTypesQuery();
  const [save, saving] = useSaveBoardTypeMutation();
  const [take, taking] = useTakeBoardTypeMutation();
  const [name, setName, dropName] = useDraft(`${boardId} board type`, detail.board.name ?? deviceName(detail.job));
  const keep = (boardTypeId: string | null) =>
    void save({ jobId, body: { id: newId(), boardId, boardTypeId, name: boardTypeId ? null : name.trim() } }).then(
      (answer) => !answer.error && dropName(name),
    );
  return (
    <Part title="Board type">
      {own && (
        <>
          <p>
            <b>{own.name}</b>, revision {own.revisionNumber}
            {own.latestNumber > own.revisionNumber && ` of ${own.latestNumber}`}.{" "}
            {own.differences.length === 0 ? "Nothing differs here." : "What differs here:"}
          </p>
          <ul className={classes.differences}>
            {own.differences.map((one) => (
              <li key={one.code + one.designator}>{differenceWords(one)}</li>
            ))}
          </ul>
          <BundleLink
            address={path(routes.boardTypeBundle, { boardTypeId: own.boardTypeId })}
            name="This type as a bundle"
            hasCustomer={false}
          />
          {own.differences.length > 0 && (
            <Button size="xs" loading={saving.isLoading} onClick={() => keep(own.boardTypeId)}>
              Keep this as revision {own.latestNumber + 1}
            </Button>
          )}
        </>
      )}
      {isEmpty && types.length > 0 && (
        <>
          <p className={text.soft}>Seen before? A type fills the empty board with places, rails and markings.</p>
          <div className={classes.types}>
            {types.map((type) => (
              <Button
                key={type.boardTypeId}
                size="xs"
                loading={taking.isLoading}
                onClick={() => void take({ jobId, body: { id: newId(), boardId, revisionId: type.revisionId } })}
              >
                {type.name}, {type.partCount} part{type.partCount === 1 ? "" : "s"}
              </Button>
            ))}
          </div>
        </>
      )}
      {isEmpty && types.length === 0 && (
        <p className={text.soft}>Once its parts are entered, a board can be kept here for the next unit of the kind.</p>
      )}
      {!own && !isEmpty && (
        <form
          className={classes.file}
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim() !== "") keep(null);
          }}
        >
          <TextInput
            size="xs"
            aria-label="Name of the board type"
            maxLength={80}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <Button type="submit" size="xs" loading={saving.isLoading} disabled={name.trim() === ""}>
            Keep as a type
          </Button>
        </form>
      )}
      <ProblemNote problem={asProblem(saving.error) ?? asProblem(taking.error)} />
    </Part>
  );
}
