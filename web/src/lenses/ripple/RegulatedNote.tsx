import type { Net } from "@pale-cap/contract";
import {
  type ConverterDescription,
  converterOf,
  fedRail,
  filterStates,
  type PredictionQuestion,
  regulatedRipple,
} from "@pale-cap/core";
import { filterStateLabels, impossibleWords } from "@pale-cap/wording";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import { useRipplePrediction } from "../../workers/useRipplePrediction";
import classes from "./ripple.module.css";
import { useChosenParts } from "./useChosenParts";

/** Ripple of a rail behind a linear regulator: that of its feed, less what the regulator takes away. */
export function RegulatedNote({
  net,
  converter,
  celsius,
  limitVolts,
}: {
  readonly net: Net;
  readonly converter: ConverterDescription;
  readonly celsius: number;
  readonly limitVolts: number | null;
}) {
  const { detail, facts } = useJob();
  const chosen = useChosenParts();
  const said = detail.nets.find((one) => one.id === converter.fedFromNetId);
  const feed = said && fedRail(detail.nets, said);
  const question = useMemo((): PredictionQuestion | null => {
    if (!feed) return null;
    const { nets, positions, fittedParts, readings } = facts;
    return {
      board: { nets, positions, fittedParts, readings, chosen },
      netId: feed.id,
      converter: converterOf(feed, { device: facts.device }),
      railVolts: feed.nominalVolts,
      loadAmps: feed.fullLoadAmps,
      temperatureCelsius: celsius,
    };
  }, [feed, facts, chosen, celsius]);
  const answer = useRipplePrediction(question, feed?.fullLoadAmps ?? 1);
  const states = answer?.prediction?.states;
  return (
    <div className={classes.story}>
      <p>{impossibleWords({ impossible: "switches_nothing", numbers: {} })}</p>
      {!feed && <p>Say under The converter which rail feeds {net.name}.</p>}
      {answer?.impossible && <p role="alert">{impossibleWords(answer.impossible)}</p>}
      {feed && states && (
        <>
          <p>From {feed.name} at its full load, 15 to 50 dB taken away (usual regulators at some tens of kilohertz):</p>
          <ul>
            {filterStates.map((state) => {
              const { lowVolts, highVolts } = regulatedRipple(states[state].loadPeakToPeakVolts);
              return (
                <li key={state}>
                  {filterStateLabels[state]} <Quantity value={lowVolts} unit="V" digits={1} /> to{" "}
                  <Quantity value={highVolts} unit="V" digits={2} />
                  {limitVolts !== null && highVolts <= limitVolts && (
                    <span className={text.softLine}> within the limit, by these figures</span>
                  )}
                </li>
              );
            })}
          </ul>
        </>
      )}
    </div>
  );
}
