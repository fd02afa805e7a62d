import type { SeriesLife, SurvivalCurve, WeibullLife } from "@pale-cap/core";
import { Area, CartesianGrid, ComposedChart, Line, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import text from "../../ui/text.module.css";
import classes from "./casebook.module.css";

interface Drawn {
  readonly name: string;
  readonly life: SeriesLife;
}

const colours = ["var(--accent)", "var(--worn)"] as const;
const steps = 60;
/** Axes end at whole steps of so many hours. */
const axisStep = 5000;
const thousand = 1000;

/** Share that still works, by age: as it was found, with its band, and the smooth life through it. */
export function SurvivalChart({ lines }: { readonly lines: readonly Drawn[] }) {
  const last = Math.max(
    0,
    ...lines.flatMap(({ life }) => [
      ...life.inspected.map((point) => point.hours),
      ...(life.followed?.steps.map((step) => step.time) ?? []),
    ]),
  );
  const farthest = axisStep * Math.ceil(last / axisStep);
  if (farthest === 0)
    return (
      <p className={text.soft}>
        None has failed that was followed, and none that was found on a board has an age: nothing to draw.
      </p>
    );
  const rows = Array.from({ length: steps + 1 }, (_, n) => {
    const hours = (farthest * n) / steps;
    return Object.assign(
      { hours: hours / thousand },
      ...lines.map(({ life }, k) => {
        const point = life.inspected.filter((one) => one.hours <= hours).at(-1);
        return {
          // Beyond the oldest part nothing was seen.
          ...(hours <= (life.inspected.at(-1)?.hours ?? -1) && { [`seen${k}`]: percent(point?.survivalRatio ?? 1) }),
          ...(life.followed && { [`kept${k}`]: percent(keptAt(life.followed, hours)) }),
          ...(k === 0 &&
            hours <= (life.inspected.at(-1)?.hours ?? -1) && {
              band: [percent(point?.lowRatio ?? 1), percent(point?.highRatio ?? 1)],
            }),
          ...(typeof life.life !== "string" && {
            smooth: undefined,
            [`smooth${k}`]: percent(weibull(life.life, hours)),
          }),
        };
      }),
    ) as Record<string, unknown>;
  });
  const tick = { fill: "var(--ink-soft)", fontSize: 12 };
  return (
    <figure className={classes.chart} aria-label="Share that still works, by hours of running">
      <ResponsiveContainer width="100%" height={300}>
        <ComposedChart data={rows} margin={{ top: 8, right: 16, bottom: 20, left: 4 }}>
          <CartesianGrid stroke="var(--line)" />
          <XAxis
            type="number"
            dataKey="hours"
            domain={[0, farthest / thousand]}
            tick={tick}
            label={{
              value: "thousand hours of running",
              position: "insideBottom",
              offset: -12,
              fill: "var(--ink-soft)",
            }}
          />
          <YAxis
            domain={[0, 100]}
            width={56}
            tick={tick}
            label={{ value: "still works, %", angle: -90, position: "insideLeft", fill: "var(--ink-soft)" }}
          />
          <Tooltip
            isAnimationActive={false}
            formatter={roundedText}
            labelFormatter={(label) => `${label} thousand h`}
          />
          <Area
            dataKey="band"
            name="nine of ten"
            stroke="none"
            fill="var(--accent)"
            fillOpacity={0.14}
            isAnimationActive={false}
            type="stepAfter"
          />
          {lines.flatMap(({ name }, k) => [
            <Line
              key={`seen ${name}`}
              type="stepAfter"
              dataKey={`seen${k}`}
              name={`${name}, as found`}
              stroke={colours[k]}
              strokeWidth={2.5}
              dot={false}
              isAnimationActive={false}
            />,
            <Line
              key={`kept ${name}`}
              type="stepAfter"
              dataKey={`kept${k}`}
              name={`${name}, fitted here`}
              stroke={colours[k]}
              strokeDasharray="2 3"
              strokeWidth={2.5}
              dot={false}
              isAnimationActive={false}
            />,
            <Line
              key={`smooth ${name}`}
              dataKey={`smooth${k}`}
              name={`${name}, smooth`}
              stroke={colours[k]}
              strokeDasharray="6 5"
              dot={false}
              isAnimationActive={false}
            />,
          ])}
        </ComposedChart>
      </ResponsiveContainer>
      <figcaption className={text.soft}>
        {lines
          .map(({ name }, k) => (k === 0 ? `${name}: blue-green, its band of nine in ten shaded` : `${name}: brown`))
          .join("; ")}
        . Steps: as found. Dotted steps: fitted here and followed. Dashed: the life that fits both.
      </figcaption>
    </figure>
  );
}

/** Of parts fitted here: by the last that failed so far. */
const keptAt = (curve: SurvivalCurve, hours: number) =>
  curve.steps.filter((one) => one.time <= hours).at(-1)?.survivalRatio ?? 1;
const percent = (ratio: number) => Math.round(1000 * ratio) / 10;
const weibull = ({ etaHours, beta }: WeibullLife, hours: number) => Math.exp(-((hours / etaHours) ** beta));
const roundedText = (value: unknown) =>
  Array.isArray(value)
    ? value.map((one) => `${Math.round(Number(one))} %`).join(" to ")
    : `${Math.round(Number(value))} %`;
