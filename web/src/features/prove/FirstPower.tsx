import { Checkbox } from "@mantine/core";
import { seriesLampFor } from "@pale-cap/core";
import { useState } from "react";
import { probeSet } from "../../job/benchSlice";
import { useAppDispatch, useAppSelector } from "../../job/hooks";
import { useJob } from "../../job/JobContext";
import { Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import { QuantityInput } from "../../ui/QuantityInput";
import { firstPowerSigns, rigNotes } from "../../wording/firstPowerWords";
import classes from "./prove.module.css";

/** The first power-up: which lamp in series, what it should do, and what the rig falsifies in the readings. */
export function FirstPower() {
  const { detail, houseRules } = useJob();
  const rig = useAppSelector((state) => state.bench.probe.rig);
  const dispatch = useAppDispatch();
  const promised = detail.nets.reduce((sum, net) => sum + Math.abs(net.nominalVolts ?? 0) * (net.fullLoadAmps ?? 0), 0);
  const [typed, setTyped] = useState<number | null>(null);
  const unitWatts = typed ?? (promised > 0 ? promised : null);
  const lamp = unitWatts === null ? null : seriesLampFor(unitWatts, houseRules["mains.voltsRms"]);
  // Once something was read without a lamp the first power-up is over.
  const hasDirectReading = detail.readings.some((reading) => reading.isPowered && !reading.rig.isSeriesLamp);
  const set = (more: Partial<typeof rig>) => dispatch(probeSet({ rig: { ...rig, ...more } }));
  return (
    <Part title="First power" aside={<span className={classes.soft}>goggles on, cover over the board</span>}>
      <div className={classes.rig}>
        <Checkbox
          label="series lamp in"
          checked={rig.isSeriesLamp}
          onChange={(event) => set({ isSeriesLamp: event.currentTarget.checked })}
        />
        <Checkbox
          label="isolation transformer in"
          checked={rig.isIsolationTransformer}
          onChange={(event) => set({ isIsolationTransformer: event.currentTarget.checked })}
        />
      </div>
      <details open={!hasDirectReading} className={classes.others}>
        <summary>Which lamp, and what it should do</summary>
        <div className={classes.firstPower}>
          <QuantityInput
            label={typed === null && promised > 0 ? "Unit, from its promised rails" : "Unit's rating"}
            size="xs"
            unit="W"
            digits={3}
            limits={[1, 5000]}
            placeholder="watts"
            value={unitWatts}
            onCommit={setTyped}
          />
          {lamp && (
            <div>
              Series lamp of <b>{lamp.lampWatts} W</b>: a dead short then draws{" "}
              <Quantity value={lamp.shortCircuitAmpsRms} unit="A" digits={2} />. Load the unit with no more than about{" "}
              <Quantity value={lamp.usableWatts} unit="W" digits={2} /> through it.
            </div>
          )}
        </div>
        <dl className={classes.signs}>
          {firstPowerSigns.map(([sign, meaning]) => (
            <div key={sign}>
              <dt>{sign}</dt>
              <dd>{meaning}</dd>
            </div>
          ))}
        </dl>
      </details>
      {rig.isSeriesLamp && <p className={classes.soft}>{rigNotes.seriesLamp}</p>}
      {rig.isIsolationTransformer && <p className={classes.soft}>{rigNotes.isolationTransformer}</p>}
    </Part>
  );
}
