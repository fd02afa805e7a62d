import { Slider } from "@mantine/core";
import type { Net } from "@pale-cap/contract";
import {
  type BulkPrediction,
  type BulkQuestion,
  type BulkState,
  deviceProfiles,
  type FilterState,
  usualCapacitorCelsius,
} from "@pale-cap/core";
import { bulkEffectWords, cautions, filterStateLabels } from "@pale-cap/wording";
import { useEffect, useMemo, useState } from "react";
import { useJob } from "../../job/JobContext";
import { LensLayout } from "../../job/panels/LensLayout";
import { Caution } from "../../ui/Caution";
import { Pane, Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { rippleWorker } from "../../workers/useRipplePrediction";
import { RailChoice } from "./RailChoice";
import { RippleChart } from "./RippleChart";
import classes from "./ripple.module.css";
import { useChosenParts } from "./useChosenParts";

const topologyWords = {
  bridge: "behind a bridge rectifier",
  doubler: "as a voltage doubler",
  boost: "behind a boost stage",
} as const;

/** The bulk over one mains cycle: its ripple, its valley, how long it holds up, and what its capacitors carry. */
export function BulkScreen({ net }: { readonly net: Net }) {
  const { facts, houseRules } = useJob();
  const chosen = useChosenParts();
  const { kind } = facts.device;
  const topology = facts.device.topology ?? deviceProfiles[kind].topologies[0] ?? null;
  const [watts, setWatts] = useState<number | null>(null);
  const [answer, setAnswer] = useState<BulkPrediction | null | "too_weak">();
  const question = useMemo(
    (): BulkQuestion => ({
      board: { ...facts, chosen },
      netId: net.id,
      mainsVoltsRms: houseRules["mains.voltsRms"],
      mainsHertz: houseRules["mains.hertz"],
      loadWatts: watts,
      temperatureCelsius: usualCapacitorCelsius,
      supplyTopology: topology,
    }),
    [facts, chosen, net.id, houseRules, watts, topology],
  );
  useEffect(() => {
    let isCurrent = true;
    // A hand on the slider asks many times: the last one counts.
    const timer = setTimeout(() => {
      void rippleWorker()
        .bulk(question)
        .then((found) => isCurrent && setAnswer(found));
    }, 120);
    return () => {
      isCurrent = false;
      clearTimeout(timer);
    };
  }, [question]);
  const prediction = answer && answer !== "too_weak" ? answer : null;
  const columns = useMemo(() => {
    if (!prediction) return [];
    const { healthy, measured, replaced } = prediction.states;
    const about = (state: BulkState, n: number) => (state.busVolts[n] ?? state.meanVolts) - measured.meanVolts;
    return measured.seconds.map((seconds, n) => ({
      seconds,
      healthy: about(healthy, n),
      measured: about(measured, n),
      replaced: about(replaced, n),
      captured: null,
    }));
  }, [prediction]);
  const rows = prediction ? (Object.entries(prediction.states) as [FilterState, BulkState][]) : [];
  return (
    <LensLayout
      paneWidth="medium"
      board={
        <div className={classes.charts}>
          <div className={classes.head}>
            <h1>Ripple of {net.name}</h1>
            <span className={text.softLine}>one mains cycle, about the mean as read</span>
          </div>
          {answer === "too_weak" && (
            <p role="alert" className={classes.story}>
              This mains cannot feed such a load through the rectifier.
            </p>
          )}
          {answer === null && (
            <p className={classes.story}>No capacitor here has value and voltage: enter them in Inspect.</p>
          )}
          {columns.length > 0 && <RippleChart columns={columns} limitVolts={null} />}
          {prediction && (
            <table className={`${text.table} ${classes.table}`} aria-label="The bulk in each state">
              <TableHead
                names={["", "ripple", "valley", "holds up", "charges for", "mains current", "switching current"]}
              />
              <tbody>
                {rows.map(([state, one]) => (
                  <tr key={state}>
                    <th scope="row">
                      <span className={classes.mark} data-state={state} />
                      {filterStateLabels[state]}
                    </th>
                    <td>
                      <Quantity value={one.peakToPeakVolts} unit="V" />
                    </td>
                    <td>
                      <Quantity value={one.valleyVolts} unit="V" />
                    </td>
                    <td>
                      <Quantity value={one.holdUpSeconds} unit="s" />
                      <span className={text.softLine}>
                        {" "}
                        <Quantity value={one.holdUpRangeSeconds[0]} unit="s" /> to{" "}
                        <Quantity value={one.holdUpRangeSeconds[1]} unit="s" />
                      </span>
                    </td>
                    <td>{one.conductionRatio === null ? "–" : `${Math.round(one.conductionRatio * 180)}°`}</td>
                    <td>
                      <Quantity value={one.lowFrequencyAmpsRms} unit="A" />
                    </td>
                    <td>
                      <Quantity value={one.highFrequencyAmpsRms} unit="A" />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {prediction && (
            <div className={classes.sliders}>
              <div>
                <div>
                  Taken from the bulk <Quantity value={prediction.loadWatts} unit="W" />
                  {prediction.isLoadAssumed && <span className={text.softLine}> assumed</span>}
                </div>
                <Slider
                  aria-label="Power"
                  thumbLabel="Power"
                  min={1}
                  max={Math.max(200, Math.ceil(prediction.loadWatts * 1.5))}
                  value={watts ?? Math.round(prediction.loadWatts)}
                  label={null}
                  onChange={setWatts}
                />
              </div>
            </div>
          )}
        </div>
      }
      pane={
        <Pane title="Ripple" note={<RailChoice netId={net.id} />}>
          <Caution>{cautions.livePrimary}</Caution>
          <Part title="How it is reckoned">
            <p>
              {prediction ? `${net.name} ${topologyWords[prediction.topology]}. ` : ""}The house rules’ mains
              {prediction?.topology === "boost" ? "" : ", 1.5 Ω in series with it (assumed)"}, a load of constant power:
              what the promised rails deliver, at 85 %.
              {prediction && (
                <>
                  {" "}
                  The converter gives up at <Quantity value={prediction.dropout.typicalVolts} unit="V" />, usual ones
                  between <Quantity value={prediction.dropout.lowVolts} unit="V" /> and{" "}
                  <Quantity value={prediction.dropout.highVolts} unit="V" /> (assumed, as{" "}
                  {facts.device.topology ? "it is said to be built" : "its kind is mostly built"}).
                </>
              )}
            </p>
            {prediction && (
              <ul>
                {prediction.effects.map((one) => (
                  <li key={one.key}>
                    {bulkEffectWords(one)}: as read <Quantity value={one.lowVolts} unit="V" /> to{" "}
                    <Quantity value={one.highVolts} unit="V" />
                  </li>
                ))}
              </ul>
            )}
            <p className={text.softLine}>
              Switching current:{" "}
              {topology === "pfc_resonant_with_standby"
                ? "half sines of a resonant half bridge"
                : "pulses of a discontinuous primary over 40 % of the period (assumed)"}
              {prediction?.topology === "boost" && ", and what the boost stage itself brings, in continuous conduction"}
              . Capacitance by the readings out of circuit, by the marking elsewhere.
            </p>
          </Part>
        </Pane>
      }
    />
  );
}
