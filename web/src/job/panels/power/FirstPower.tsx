import { Button, Checkbox } from "@mantine/core";
import type { FirstPowerWay } from "@pale-cap/contract";
import {
  dcFeedFor,
  hasBacklight,
  hasBoostStage,
  limiterFor,
  powerSigns,
  seriesLampFor,
  type UnitRating,
  unitRating,
} from "@pale-cap/core";
import { cautions, firstPowerSigns, logTime, residualCurrentWords, rigNotes } from "@pale-cap/wording";
import { type ReactNode, useState } from "react";
import { useAppDispatch, useAppSelector } from "../../../app/store/hooks";
import { Caution } from "../../../ui/Caution";
import { Part } from "../../../ui/Pane";
import { ProblemNote } from "../../../ui/ProblemNote";
import { Quantity } from "../../../ui/Quantity";
import { QuantityInput } from "../../../ui/QuantityInput";
import text from "../../../ui/text.module.css";
import { useJob } from "../../JobContext";
import { probeSet } from "../../workplaceSlice";
import { PowerGateCard } from "./PowerGateCard";
import classes from "./power.module.css";
import { useLogPower } from "./useLogPower";

const ratingLabels: Readonly<Record<UnitRating["source"], string>> = {
  label_rails: "Gives at most, by its label's rails",
  promised_rails: "Gives at most, by its promised rails",
  label_input: "Gives at most, guessed from the label's input",
};

/**
 * The first power-up: what stands against it, what to unplug and cover, what to put in the way, what it should do, and its
 * record. While something stands against it nothing of it is offered.
 */
export function FirstPower() {
  const { power, detail } = useJob();
  return (
    <Part title="First power" aside={<span className={text.softLine}>goggles on, cover over the board</span>}>
      <Caution>{cautions.firstPower}</Caution>
      <PowerGateCard />
      {!power.isShut && (
        <>
          <RigChecks />
          <details open={power.record === null} className={classes.details}>
            <summary>What to unplug, what to put in the way, and what it should do</summary>
            <p className={text.softLine}>{cautions.overVoltage}</p>
            <p className={text.softLine}>{cautions.hotSink}</p>
            {hasBacklight(detail.job.deviceKind) && <p className={text.softLine}>{cautions.backlight}</p>}
            <Ways />
          </details>
          <FirstPowerRecord />
        </>
      )}
    </Part>
  );
}

/** What lamp or rail did is one key; what it means stands beside it. */
function FirstPowerRecord() {
  const { power, detail } = useJob();
  const rig = useAppSelector((state) => state.workplace.probe.rig);
  const [log, { problem, isLoading }] = useLogPower();
  const isBehind = rig.isSeriesLamp || rig.isElectronicLimiter;
  const offered = powerSigns.filter((one) => one.startsWith("straight") !== isBehind);
  const { record } = power;
  return (
    <>
      {record?.sign && (
        <p role="status">
          First power at {logTime(record.at)}: <b>{firstPowerSigns[record.sign][0]}</b>.{" "}
          {firstPowerSigns[record.sign][1]}.
        </p>
      )}
      {record === null && detail.ticks.length > 0 && (
        <p className={text.softLine}>Not powered since the last part went in. After power, one key says what it did:</p>
      )}
      <ul className={classes.signs}>
        {offered.map((sign) => (
          <li key={sign}>
            <Button
              size="xs"
              loading={isLoading}
              onClick={() => void log({ kind: "first_power", sign, rig: { ...rig } })}
            >
              {firstPowerSigns[sign][0]}
            </Button>
            <span className={text.softLine}>{firstPowerSigns[sign][1]}</span>
          </li>
        ))}
      </ul>
      <ProblemNote problem={problem} />
    </>
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
        <Checkbox
          label="case closed around it"
          checked={rig.isCaseClosed === true}
          onChange={(event) => set({ isCaseClosed: event.currentTarget.checked })}
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

/** Lamp, limiter and straight, the house rule's way first; a unit fed with d.c. goes on a bench supply. */
function Ways() {
  const { detail, houseRules } = useJob();
  const { labelPlate, topology, feed } = detail.job.intakeDetails;
  const known = unitRating(labelPlate, detail.nets, topology);
  const [typed, setTyped] = useState<number | null>(null);
  const outputWatts = typed ?? known?.outputWatts ?? null;
  const isDcFed = feed?.kind === "external_supply" || feed?.kind === "host" || topology === "buck_board";
  const mainsVolts = feed?.kind === "mains" && feed.volts !== null ? feed.volts : houseRules["mains.voltsRms"];
  const feedVolts = feed?.volts ?? labelPlate.inputVoltsLow ?? labelPlate.inputVoltsHigh;
  return (
    <>
      <div className={classes.rating}>
        <QuantityInput
          label={typed === null && known ? ratingLabels[known.source] : "What the unit gives"}
          size="xs"
          unit="W"
          digits={3}
          limits={[1, 5000]}
          placeholder="watts"
          value={outputWatts}
          onCommit={setTyped}
        />
        <span className={text.softLine}>
          {isDcFed
            ? "fed with d.c., by intake"
            : `at ${mainsVolts} V mains, by ${feed?.kind === "mains" && feed.volts !== null ? "intake" : "the house rule"}`}
        </span>
      </div>
      {outputWatts === null && (
        <p className={text.softLine}>Enter the label or what it gives: the lamp or the limit follows from it.</p>
      )}
      {isDcFed ? (
        <DcWay outputWatts={outputWatts} inputVolts={feedVolts} />
      ) : (
        <MainsWays outputWatts={outputWatts} mainsVolts={mainsVolts} hasBoost={hasBoostStage(topology, detail.nets)} />
      )}
    </>
  );
}

/** A board fed with d.c. needs no lamp: a supply that limits. */
function DcWay(props: { readonly outputWatts: number | null; readonly inputVolts: number | null }) {
  const { outputWatts, inputVolts } = props;
  const limit = outputWatts === null || inputVolts === null ? null : dcFeedFor(outputWatts, inputVolts);
  return (
    <ul className={classes.ways}>
      <li data-first>
        A bench supply with its current limit, set before it is connected
        {limit && inputVolts !== null && (
          <>
            : <Quantity value={inputVolts} unit="V" digits={3} />, first{" "}
            <b>
              <Quantity value={limit.startAmps} unit="A" digits={2} />
            </b>
            , with load no more than <Quantity value={limit.fullAmps} unit="A" digits={2} />
          </>
        )}
        . No lamp, no limiter for the mains: there is no mains in it.
      </li>
    </ul>
  );
}

function MainsWays(props: {
  readonly outputWatts: number | null;
  readonly mainsVolts: number;
  readonly hasBoost: boolean;
}) {
  const { houseRules } = useJob();
  const { outputWatts, mainsVolts, hasBoost } = props;
  const first = houseRules["power.firstWay"];
  const lamp = outputWatts === null ? null : seriesLampFor(outputWatts, mainsVolts);
  const limiter = outputWatts === null ? null : limiterFor(outputWatts, mainsVolts, hasBoost);
  const ways: Readonly<Record<FirstPowerWay, ReactNode>> = {
    series_lamp: lamp && (
      <>
        Series lamp of <b>{lamp.lampWatts} W</b>
        {lamp.isCapped && " (no larger one without load)"}: a dead short then draws{" "}
        <Quantity value={lamp.shortCircuitAmpsRms} unit="A" digits={2} />. Load the unit with no more than about{" "}
        <Quantity value={lamp.usableWatts} unit="W" digits={2} /> through it. A lamp does not isolate.
        {hasBoost &&
          " With PFC it can pulse behind a lamp although sound: constant power. A larger lamp, or d.c. into the bulk, tells."}
      </>
    ),
    limiter: limiter && (
      <>
        Electronic limiter set to <Quantity value={limiter.tripAmpsRms} unit="A" digits={2} />, or the bulk fed with
        d.c. limited to <Quantity value={limiter.bulkFeedAmps} unit="A" digits={2} />. A limiter does not isolate.
      </>
    ),
    straight: "Straight to the mains: a fault then costs what it costs.",
  };
  const order = [first, ...(Object.keys(ways) as FirstPowerWay[]).filter((way) => way !== first)];
  return (
    <>
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
