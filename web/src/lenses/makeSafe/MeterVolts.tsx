import { Button } from "@mantine/core";
import type { EnergyStoreRow } from "@pale-cap/contract";
import { formatQuantity } from "@pale-cap/core";
import { statusWords } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { useLive } from "../../probe/instruments/useLive";
import classes from "./makeSafe.module.css";

/** What the connected meter reads at a store, to be logged as it stands: the same reading as a typed one. */
export function MeterVolts(props: {
  readonly store: EnergyStoreRow;
  readonly onLog: (volts: number, isSimulated: boolean) => void;
}) {
  const { store, onLog } = props;
  const { detail } = useJob();
  const net = detail.nets.find((one) => one.id === store.netId);
  // A store without a rail is probed at the part that it is called after.
  const points = net?.name ?? /[A-Z]+\d+/.exec(store.name)?.[0] ?? store.name;
  const [live, probe] = useLive({ points, quantity: "dc_voltage", circuitState: null, frequencyHertz: null });
  const { instrument, value, isHere } = live;
  if (!instrument) return null;
  return (
    <div className={classes.row}>
      <span className={classes.meter}>
        {instrument.name}
        {instrument.isSimulated && " (simulated)"}:{" "}
        {instrument.status !== "ready" ? (
          statusWords[instrument.status]
        ) : isHere && value !== null ? (
          <b>{formatQuantity(value, "V", { significantDigits: 4 }).text}</b>
        ) : (
          "probes elsewhere"
        )}
      </span>
      {isHere && value !== null ? (
        <Button size="xs" onClick={() => onLog(value, instrument.isSimulated)}>
          Log it
        </Button>
      ) : (
        <Button size="xs" onClick={() => void probe()}>
          Probes to {points}
        </Button>
      )}
    </div>
  );
}
