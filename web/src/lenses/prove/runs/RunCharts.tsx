import type { RunRow } from "@pale-cap/contract";
import type { RunSample } from "@pale-cap/core";
import { CurveChart } from "../../../drawing/CurveChart";
import classes from "./runs.module.css";
import { spotName, useRunNames } from "./useRunNames";

/** More points than a chart has pixels help nobody. */
const mostPoints = 400;

/** The first and the last, and of those between as many as can be told apart; the highest and lowest of each stretch stay. */
function thinned(points: readonly (readonly [number, number])[]): readonly (readonly [number, number])[] {
  if (points.length <= mostPoints) return points;
  const width = Math.ceil(points.length / (mostPoints / 2));
  const kept: (readonly [number, number])[] = [];
  for (let from = 0; from < points.length; from += width) {
    const stretch = points.slice(from, from + width);
    const low = stretch.reduce((least, one) => (one[1] < least[1] ? one : least));
    const high = stretch.reduce((most, one) => (one[1] > most[1] ? one : most));
    kept.push(...(low === high ? [low] : low[0] < high[0] ? [low, high] : [high, low]));
  }
  return kept;
}

/** What the instruments read over the time of a run: volts of each rail against their limits, amperes, watts, ripple, heat. */
export function RunCharts({ run, samples }: { readonly run: RunRow; readonly samples: readonly RunSample[] }) {
  const { nameOf } = useRunNames();
  const { plan } = run;
  const x = { name: "minutes", unit: "min" };
  const over = (of: (sample: RunSample) => number | null | undefined) =>
    thinned(
      samples.flatMap((one) => {
        const value = of(one);
        return value === null || value === undefined ? [] : [[one.seconds / 60, value] as const];
      }),
    );
  const railOf = (netId: string) => (sample: RunSample) => sample.rails.find((one) => one.netId === netId);
  const name = (netId: string) => nameOf(netId) ?? "rail";
  return (
    <div className={classes.charts}>
      {plan.rails.map((rail) => (
        <CurveChart
          key={rail.netId}
          label={`${name(rail.netId)}: volts`}
          isDense
          x={x}
          y={{ name: "volts", unit: "V" }}
          lines={[{ name: name(rail.netId), points: over((one) => railOf(rail.netId)(one)?.volts) }]}
          limits={[rail.lowVolts, rail.highVolts]}
        />
      ))}
      <CurveChart
        label="Amperes"
        isDense
        isFromNought
        x={x}
        y={{ name: "amperes", unit: "A" }}
        lines={plan.rails.map((rail) => ({
          name: name(rail.netId),
          points: over((one) => Math.max(railOf(rail.netId)(one)?.amps ?? 0, 0)),
        }))}
        limits={[]}
      />
      {plan.mainsId !== null && (
        <CurveChart
          label="Watts drawn"
          isDense
          isFromNought
          x={x}
          y={{ name: "watts", unit: "W" }}
          lines={[{ name: "from the mains", points: over((one) => one.inputWatts) }]}
          limits={plan.mostInputWatts === null ? [] : [plan.mostInputWatts]}
        />
      )}
      {plan.ripple && (
        <CurveChart
          label={`Ripple of ${name(plan.ripple.netId)}`}
          isDense
          x={x}
          y={{ name: "V p-p", unit: "V" }}
          lines={[{ name: "ripple", points: over((one) => one.rippleVolts) }]}
          limits={plan.ripple.mostVolts === null ? [] : [plan.ripple.mostVolts]}
        />
      )}
      {plan.spots.map((spot, n) => (
        <CurveChart
          key={spot.thermometerId}
          label={`Heat of ${spotName(spot, nameOf)}`}
          isDense
          x={x}
          y={{ name: "°C", unit: "°C" }}
          lines={[{ name: spotName(spot, nameOf), points: over((one) => one.celsius[n]) }]}
          limits={[spot.mostCelsius]}
        />
      ))}
    </div>
  );
}
