import { type BoardChange, editableValues, type JobDetail, type NetValues } from "@pale-cap/contract";

/** The change of one rail, made from what is stored by then; undefined where it is gone. */
export function netUpdate(
  { nets }: Pick<JobDetail, "nets">,
  netId: string,
  change: (stored: NetValues) => Partial<NetValues>,
): BoardChange[] | undefined {
  const net = nets.find((one) => one.id === netId);
  if (!net) return undefined;
  const { id, version } = net;
  const stored = editableValues("net", net);
  return [{ table: "net", operation: "update", id, version, values: { ...stored, ...change(stored) } }];
}
