import { Button, NativeSelect, TextInput } from "@mantine/core";
import type { OpenPoint, PointWeight } from "@pale-cap/core";
import { openPointWords, usualReasons } from "@pale-cap/wording";
import { useState } from "react";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { ProblemNote } from "../../ui/ProblemNote";
import { useDraft } from "../../ui/useDraft";
import classes from "./handOver.module.css";
import { useAccept } from "./useAccept";

/** A reason for one point or for several alike, picked or typed; a heavy one also wants who answers for it. */
export function AcceptForm(props: {
  readonly points: readonly OpenPoint[];
  readonly weight: Exclude<PointWeight, "earth">;
}) {
  const { points, weight } = props;
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [accept, { problem, isLoading }] = useAccept();
  const [first] = points as readonly [OpenPoint, ...OpenPoint[]];
  const [reason, setReason, dropReason] = useDraft(`${detail.job.id} accept ${first.code}`, "");
  const [name, setName] = useState("");
  const isNameWanted = weight === "person" && personId === null;
  const words = points.length > 1 ? `${points.length} alike` : openPointWords(first);
  const said = isNameWanted ? `${reason.trim()} (${name.trim()})` : reason.trim();
  const isReady = reason.trim() !== "" && (!isNameWanted || name.trim().length > 1);
  return (
    <form
      className={classes.accept}
      onSubmit={(event) => {
        event.preventDefault();
        if (isReady) void accept(points, said).then((isSafe) => isSafe && dropReason(reason));
      }}
    >
      <NativeSelect
        size="xs"
        aria-label={`Usual reasons: ${words}`}
        value=""
        data={[{ value: "", label: "reason …" }, ...usualReasons[weight]]}
        onChange={(event) => event.currentTarget.value !== "" && setReason(event.currentTarget.value)}
      />
      <TextInput
        size="xs"
        aria-label={`Reason to accept: ${words}`}
        placeholder="or typed"
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
      />
      {isNameWanted && (
        <TextInput
          size="xs"
          aria-label={`Who answers for it: ${words}`}
          placeholder="who answers for it"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
      )}
      <Button size="xs" type="submit" loading={isLoading} disabled={!isReady}>
        {points.length > 1 ? `Accept ${points.length}` : "Accept"}
      </Button>
      <ProblemNote problem={problem} />
    </form>
  );
}
