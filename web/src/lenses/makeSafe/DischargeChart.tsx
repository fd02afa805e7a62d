import type { EnergyStoreRow } from "@pale-cap/contract";
import { type DrainKitItem, decayedVolts, drainPlan, isBefore, secondsBetween } from "@pale-cap/core";
import { useMemo } from "react";
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { useJob } from "../../job/JobContext";
import classes from "./makeSafe.module.css";

const steps = 60;

interface DischargeChartProps {
  readonly store: EnergyStoreRow;
  readonly startVolts: number;
  readonly capacitanceFarads: number;
  /** The part of the kit that was taken; null: the plain resistor of the store. */
  readonly item: DrainKitItem | null;
}

/** Predicted decay through the chosen part, with what the meter said since the drain was connected. */
export function DischargeChart({ store, startVolts, capacitanceFarads, item }: DischargeChartProps) {
  const { facts, rules } = useJob();
  const { workingVolts } = rules.charge;
  const { bleederOhms } = store;
  const predicted = useMemo(
    () =>
      item
        ? drainPlan({ capacitanceFarads, startVolts, bleederOhms }, item, {
            workingVolts,
            longestSeconds: 1,
          }).course.samples.map(({ seconds, volts }) => ({ seconds, predicted: volts }))
        : resistorDecay(store, startVolts, workingVolts),
    [item, capacitanceFarads, startVolts, bleederOhms, store, workingVolts],
  );
  const end = predicted.at(-1)?.seconds ?? 0;
  if (!(end > 0)) return null;
  const own = facts.chargeEvents.filter((event) => event.storeId === store.id);
  const drain = own.filter((event) => event.kind === "drain_started").at(-1);
  const readings = drain
    ? own
        .filter((event) => event.kind === "voltage_measured" && isBefore(drain, event))
        .flatMap((event) => {
          // Where two clocks gave the moments nobody knows how long lay between.
          const seconds = secondsBetween(drain, event);
          return seconds === null ? [] : [{ seconds, measured: Math.abs(event.volts ?? 0) }];
        })
        .filter((point) => point.seconds <= end)
    : [];
  const data = [...predicted, ...readings].sort((a, b) => a.seconds - b.seconds);
  return (
    <div className={classes.chart}>
      <ResponsiveContainer width="100%" height="100%">
        <LineChart data={data} margin={{ top: 12, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          <XAxis
            dataKey="seconds"
            type="number"
            domain={[0, end]}
            unit=" s"
            tickCount={6}
            tickFormatter={(value: number) => String(Number(value.toPrecision(2)))}
            stroke="var(--ink-soft)"
          />
          <YAxis unit=" V" width={62} stroke="var(--ink-soft)" />
          <Tooltip
            formatter={(value) => `${Number(Number(value).toPrecision(3))} V`}
            labelFormatter={(value) => `${Number(Number(value).toPrecision(2))} s`}
            contentStyle={{ background: "var(--panel)", borderColor: "var(--line)" }}
          />
          <ReferenceLine
            y={60}
            stroke="var(--worn)"
            strokeDasharray="4 3"
            label={{ value: "60 V", position: "insideBottomRight", fontSize: 12, fill: "var(--ink-soft)" }}
          />
          <ReferenceLine y={rules.charge.workingVolts} stroke="var(--accent)" strokeDasharray="4 3" />
          <Line
            dataKey="predicted"
            name="predicted"
            dot={false}
            stroke="var(--ink)"
            strokeWidth={2}
            isAnimationActive={false}
            connectNulls
          />
          <Line
            dataKey="measured"
            name="measured"
            stroke="none"
            dot={{ r: 5, fill: "var(--accent)" }}
            isAnimationActive={false}
          />
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}

function resistorDecay(store: EnergyStoreRow, startVolts: number, workingVolts: number) {
  const conductance = (store.drainOhms ? 1 / store.drainOhms : 0) + (store.bleederOhms ? 1 / store.bleederOhms : 0);
  const tau = conductance > 0 ? (store.capacitanceFarads ?? 0) / conductance : 0;
  if (!(tau > 0)) return [];
  const end = tau * Math.max(Math.log(startVolts / workingVolts), 1) * 1.25;
  return Array.from({ length: steps + 1 }, (_, index) => {
    const seconds = (end * index) / steps;
    return { seconds, predicted: decayedVolts(startVolts, tau, seconds) };
  });
}
