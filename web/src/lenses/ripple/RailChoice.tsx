import { NativeSelect } from "@mantine/core";
import { netsInOrder } from "@pale-cap/contract";
import { useNavigate } from "react-router";
import { useJob } from "../../job/JobContext";

/** The rails with capacitors, to go from one to the other. */
export function RailChoice({ netId }: { readonly netId: string }) {
  const { detail } = useJob();
  const navigate = useNavigate();
  const rails = netsInOrder(detail).filter((net) =>
    detail.positions.some((one) => one.netId === net.id && one.kind === "electrolytic"),
  );
  return (
    <NativeSelect
      aria-label="Rail"
      value={netId}
      data={rails.map((net) => ({ value: net.id, label: net.name }))}
      onChange={(event) => navigate(`/jobs/${detail.job.id}/ripple/${event.currentTarget.value}`)}
    />
  );
}
