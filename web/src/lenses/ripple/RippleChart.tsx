import { formatQuantity } from "@pale-cap/core";
import { filterStateLabels } from "@pale-cap/wording";
import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from "recharts";
import classes from "./ripple.module.css";

export interface ChartColumn {
  readonly seconds: number;
  readonly healthy?: number;
  readonly measured?: number;
  readonly replaced?: number;
  readonly captured: readonly [number, number] | null;
}

const names = { ...filterStateLabels, captured: "captured" } as const;

/** Ripple over time: the states as lines, what was captured as a band from least to most. */
export function RippleChart({
  columns,
  limitVolts,
}: {
  readonly columns: readonly ChartColumn[];
  /** Peak to peak; drawn as half above and half below. */
  readonly limitVolts: number | null;
}) {
  const end = columns.at(-1)?.seconds ?? 0;
  const volts = (value: number) => formatQuantity(value, "V", { significantDigits: 2 }).text;
  const hasStates = columns.some((one) => one.measured !== undefined);
  return (
    <div className={classes.chart} data-ripple-chart>
      <ResponsiveContainer width="100%" height="100%">
        <ComposedChart data={[...columns]} margin={{ top: 10, right: 16, bottom: 4, left: 6 }}>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          <XAxis
            dataKey="seconds"
            type="number"
            domain={[0, end]}
            tickCount={6}
            tickFormatter={(value: number) => formatQuantity(value, "s", { significantDigits: 2 }).text}
            stroke="var(--ink-soft)"
          />
          <YAxis width={74} tickFormatter={volts} stroke="var(--ink-soft)" />
          <Tooltip
            formatter={(value, name) => [
              Array.isArray(value) ? `${volts(Number(value[0]))} to ${volts(Number(value[1]))}` : volts(Number(value)),
              names[name as keyof typeof names] ?? name,
            ]}
            labelFormatter={(value) => formatQuantity(Number(value), "s", { significantDigits: 3 }).text}
            contentStyle={{ background: "var(--panel)", borderColor: "var(--line)" }}
            isAnimationActive={false}
          />
          {limitVolts !== null &&
            [-0.5, 0.5].map((half) => (
              <ReferenceLine
                key={half}
                y={half * limitVolts}
                stroke="var(--worn)"
                strokeDasharray="5 4"
                {...(half > 0 && {
                  label: { value: "limit", position: "insideTopRight", fontSize: 12, fill: "var(--ink-soft)" },
                })}
              />
            ))}
          <Area
            dataKey="captured"
            stroke="var(--unknown)"
            fill="var(--unknown)"
            fillOpacity={0.35}
            isAnimationActive={false}
            connectNulls
          />
          {hasStates && (
            <>
              <Line
                dataKey="healthy"
                stroke="var(--sound)"
                strokeWidth={2}
                strokeDasharray="7 4"
                dot={false}
                isAnimationActive={false}
              />
              <Line dataKey="measured" stroke="var(--failed)" strokeWidth={2.5} dot={false} isAnimationActive={false} />
              <Line
                dataKey="replaced"
                stroke="var(--accent)"
                strokeWidth={2.5}
                strokeDasharray="2 3"
                dot={false}
                isAnimationActive={false}
              />
            </>
          )}
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  );
}
