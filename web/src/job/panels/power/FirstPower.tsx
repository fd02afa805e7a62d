import { Checkbox } from "@mantine/core";
import type { FirstPowerWay } from "@pale-cap/contract";
import { limiterFor, powerGate, seriesLampFor } from "@pale-cap/core";
import { cautions, firstPowerSigns, residualCurrentWords, rigNotes } from "@pale-cap/wording";
import { type ReactNode, useState } from "react";
import { useAppDispatch, useAppSelector } from "../../../app/store/hooks";
import { Caution } from "../../../ui/Caution";
import { Part } from "../../../ui/Pane";
import { Quantity } from "../../../ui/Quantity";
import { QuantityInput } from "../../../ui/QuantityInput";
import text from "../../../ui/text.module.css";
import { useJob } from "../../JobContext";
import { probeSet } from "../../workplaceSlice";
import { PowerGateCard } from "./PowerGateCard";
import classes from "./power.module.css";
import { type UnitRating, unitRating } from "./unitRating";

const ratingLabels: Readonly<Record<UnitRating["source"], string>> = {
  label_input: "Unit, by its label's input",
  label_rails: "Unit, by its label's rails",
  promised_rails: "Unit, from its promised rails",
};

/**
 * The first power-up: the gate before it, what to put in the way, what it should do, and what the rig falsifies in the
 * readings. While the gate is shut nothing of it is offered.
 */
export function FirstPower() {
  const { detail, facts } = useJob();
  const isShut = powerGate(facts.symptoms, facts.powerEvents).isShut;
  // Once something was read without a lamp or limiter the first power-up is over.
  const hasDirectReading = detail.readings.some(
    ({ isPowered, rig }) => isPowered && !rig.isSeriesLamp && !rig.isElectronicLimiter,
  );
  return (
    <Part title="First power" aside={<span className={text.softLine}>goggles on, cover over the board</span>}>
      <Caution>{cautions.firstPower}</Caution>
      <PowerGateCard />
      {!isShut && (
        <>
          <RigChecks />
          <details open={!hasDirectReading} className={classes.details}>
            <summary>What to put in the way, and what it should do</summary>
            <Ways />
            <dl className={classes.signs}>
              {firstPowerSigns.map(([sign, meaning]) => (
                <div key={sign}>
                  <dt>{sign}</dt>
                  <dd>{meaning}</dd>
                </div>
              ))}
            </dl>
          </details>
        </>
      )}
    </Part>
  );
}

function RigChecks() {
  const rig = useAppSelector((state) => state.workplace.probe.rig);
  const dispatch = useAppDispatch();
  const set = (more: Partial<typeof rig>) => dispatch(probeSet({ rig: { ...rig, ...more } }));
  return (
    <>
      <div className={classes.rig}>
        <Checkbox
          label="series lamp in"
          checked={rig.isSeriesLamp}
          onChange={(event) => set({ isSeriesLamp: event.currentTarget.checked })}
        />
        <Checkbox
          label="electronic limiter in"
          checked={rig.isElectronicLimiter}
          onChange={(event) => set({ isElectronicLimiter: event.currentTarget.checked })}
        />
        <Checkbox
          label="isolation transformer in"
          checked={rig.isIsolationTransformer}
          onChange={(event) => set({ isIsolationTransformer: event.currentTarget.checked })}
        />
      </div>
      <p className={text.softLine}>
        {residualCurrentWords(rig)} {rig.isSeriesLamp && rigNotes.seriesLamp}{" "}
        {rig.isElectronicLimiter && rigNotes.electronicLimiter}{" "}
        {rig.isIsolationTransformer && rigNotes.isolationTransformer}
      </p>
      {rig.isIsolationTransformer && <Caution>{cautions.residualCurrent}</Caution>}
      {rig.isIsolationTransformer && !rig.isSeriesLamp && !rig.isElectronicLimiter && (
        <p className={text.softLine}>Nothing limits the current now: the transformer does not count as a limiter.</p>
      )}
    </>
  );
}

/** Lamp, limiter and straight, the house rule's way first. */
function Ways() {
  const { detail, houseRules } = useJob();
  const known = unitRating(detail);
  const [typed, setTyped] = useState<number | null>(null);
  const unitWatts = typed ?? known?.watts ?? null;
  const mainsVolts = houseRules["mains.voltsRms"];
  const first = houseRules["power.firstWay"];
  const lamp = unitWatts === null ? null : seriesLampFor(unitWatts, mainsVolts);
  const limiter = unitWatts === null ? null : limiterFor(unitWatts, mainsVolts);
  const ways: Readonly<Record<FirstPowerWay, ReactNode>> = {
    series_lamp: lamp && (
      <>
        Series lamp of <b>{lamp.lampWatts} W</b>: a dead short then draws{" "}
        <Quantity value={lamp.shortCircuitAmpsRms} unit="A" digits={2} />. Load the unit with no more than about{" "}
        <Quantity value={lamp.usableWatts} unit="W" digits={2} /> through it. A lamp does not isolate.
      </>
    ),
    limiter: limiter && (
      <>
        Electronic limiter set to <Quantity value={limiter.tripAmpsRms} unit="A" digits={2} />, or the bulk fed with
        d.c. limited to <Quantity value={limiter.bulkFeedAmps} unit="A" digits={2} />. A limiter does not isolate.
      </>
    ),
    straight: "Straight to the mains: a fault then costs what it costs. The gate and the cold checks are all there is.",
  };
  const order = [first, ...(Object.keys(ways) as FirstPowerWay[]).filter((way) => way !== first)];
  return (
    <>
      <div className={classes.rating}>
        <QuantityInput
          label={typed === null && known ? ratingLabels[known.source] : "Unit's rating"}
          size="xs"
          unit="W"
          digits={3}
          limits={[1, 5000]}
          placeholder="watts"
          value={unitWatts}
          onCommit={setTyped}
        />
        <span className={text.softLine}>at {mainsVolts} V mains, by the house rule</span>
      </div>
      {unitWatts === null && <p className={text.softLine}>Enter the label or the rating: the lamp follows from it.</p>}
      <ul className={classes.ways}>
        {order.map(
          (way) =>
            ways[way] && (
              <li key={way} data-first={way === first || undefined}>
                {ways[way]}
                {way === first && <span className={text.softLine}> By the house rule.</span>}
              </li>
            ),
        )}
      </ul>
      {houseRules["power.hasTransformer"] && (
        <p className={text.softLine}>House rule: behind an isolation transformer. {rigNotes.isolationTransformer}</p>
      )}
    </>
  );
}
