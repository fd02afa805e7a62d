import { NativeSelect } from "@mantine/core";
import type { Net } from "@pale-cap/contract";
import { netsInOrder } from "@pale-cap/contract";
import { assumedChoke, formatQuantity, type NetNetwork } from "@pale-cap/core";
import { Part } from "../../../ui/Pane";
import { ProblemNote } from "../../../ui/ProblemNote";
import { QuantityInput } from "../../../ui/QuantityInput";
import { useJob } from "../../JobContext";
import { netUpdate } from "../../netUpdate";
import { useShownBoardEdit } from "../../useBoardEdit";
import classes from "./rails.module.css";

const plain: NetNetwork = { arrangement: "parallel", behindNetId: null, chokeHenrys: null, chokeOhms: null };

/** How the capacitors of each rail hang together, and across what choke: banks are judged as what they are. */
export function RailNetworks() {
  const { detail: unit, shown: detail } = useJob();
  const [edit, { problem }] = useShownBoardEdit();
  const rails = netsInOrder(detail).filter((net) =>
    detail.positions.some((one) => one.netId === net.id && one.kind === "electrolytic"),
  );
  if (rails.length === 0) return null;
  const change = ({ id }: Net, more: Partial<NetNetwork>) =>
    void edit((latest) =>
      netUpdate(latest, id, (stored) => {
        const next = { ...(stored.network ?? plain), ...more };
        return { network: next.arrangement === "parallel" && next.behindNetId === null ? null : next };
      }),
    );
  return (
    <Part title="How they hang together">
      <ProblemNote problem={problem} />
      {rails.map((net) => {
        const network = net.network ?? plain;
        // Only a rail that is not itself filtered from another can stand before the choke.
        const before = netsInOrder(unit).filter((one) => one.id !== net.id && !one.network?.behindNetId);
        return (
          <div key={net.id} className={classes.network}>
            <span>{net.name}</span>
            <NativeSelect
              size="xs"
              aria-label={`${net.name}, capacitors are`}
              value={network.arrangement === "series" ? "series" : (network.behindNetId ?? "parallel")}
              data={[
                { value: "parallel", label: "in parallel" },
                { value: "series", label: "in series (doubler)" },
                ...before.map((one) => ({ value: one.id, label: `behind a choke on ${one.name}` })),
              ]}
              onChange={(event) => {
                const choice = event.currentTarget.value;
                if (choice === "series") change(net, { ...plain, arrangement: "series" });
                else change(net, { arrangement: "parallel", behindNetId: choice === "parallel" ? null : choice });
              }}
            />
            {network.behindNetId !== null && (
              <>
                <QuantityInput
                  label={`${net.name}, inductance of the choke`}
                  isLabelHidden
                  isCompact
                  size="xs"
                  unit="H"
                  placeholder={`${formatQuantity(assumedChoke.henrys, "H").text}?`}
                  limits={[1e-9, 1]}
                  value={network.chokeHenrys}
                  onCommit={(chokeHenrys) => change(net, { chokeHenrys })}
                />
                <QuantityInput
                  label={`${net.name}, resistance of the choke`}
                  isLabelHidden
                  isCompact
                  size="xs"
                  unit="Ω"
                  placeholder={`${formatQuantity(assumedChoke.ohms, "Ω").text}?`}
                  limits={[1e-6, 1000]}
                  value={network.chokeOhms}
                  onCommit={(chokeOhms) => change(net, { chokeOhms })}
                />
              </>
            )}
          </div>
        );
      })}
    </Part>
  );
}
