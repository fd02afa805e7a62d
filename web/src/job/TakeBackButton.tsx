import { Button } from "@mantine/core";
import type { DeviceKind } from "@pale-cap/core";
import type { MouseEvent } from "react";
import { useNavigate } from "react-router";
import { newId } from "../api/newId";
import { useAppSelector } from "../app/store/hooks";
import { asProblem, ProblemNote } from "../ui/ProblemNote";
import { useCreateJobMutation } from "./jobListApi";

/** The unit of a closed job stands on the counter again: one press makes its new job, which knows the old one. */
export function TakeBackButton(props: {
  readonly job: { readonly id: string; readonly deviceKind: string };
  readonly size?: string;
}) {
  const { id, deviceKind } = props.job;
  const personId = useAppSelector((state) => state.workplace.personId);
  const navigate = useNavigate();
  const [create, { isLoading, error }] = useCreateJobMutation();
  async function takeBack(event: MouseEvent): Promise<void> {
    event.stopPropagation();
    // Device, label, board and customer come from the job that it was handed over with.
    const device = { deviceKind: deviceKind as DeviceKind, deviceMaker: null, deviceModel: null, complaint: null };
    const { data } = await create({ id: newId(), ...device, personId, comebackOf: id });
    if (data) navigate(`/jobs/${data.job.id}/intake`);
  }
  return (
    <>
      <Button size={props.size ?? "compact-sm"} loading={isLoading} onClick={(event) => void takeBack(event)}>
        It came back
      </Button>
      <ProblemNote problem={asProblem(error)} />
    </>
  );
}
