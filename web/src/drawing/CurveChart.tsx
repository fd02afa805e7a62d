import {
  CartesianGrid,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  Tooltip,
  XAxis,
  YAxis,
} from "recharts";
import text from "../ui/text.module.css";
import classes from "./curveChart.module.css";

interface Axis {
  readonly name: string;
  readonly unit: string;
}

const colours = ["var(--accent)", "var(--worn)", "var(--sound)", "var(--unknown)", "var(--ink)"] as const;
const shapes = ["circle", "square", "triangle", "diamond", "cross"] as const;
/** Many points are told apart by their line. */
const dashes = [
  ["solid", undefined],
  ["dashed", "8 5"],
  ["dotted", "2 4"],
  ["long", "14 6"],
  ["mixed", "10 4 2 4"],
] as const;
const noShape = () => <g />;

/** Points joined by lines against their limits. */
export function CurveChart(props: {
  readonly label: string;
  readonly x: Axis;
  readonly y: Axis;
  readonly lines: readonly { readonly name: string; readonly points: readonly (readonly [number, number])[] }[];
  readonly limits: readonly number[];
  /** So many points that marks would cover the line. */
  readonly isDense?: boolean;
  /** Nought is its floor. */
  readonly isFromNought?: boolean;
  /** From its first point to its last. */
  readonly isToTheEdges?: boolean;
}) {
  const { label, x, y, lines, limits, isDense = false, isFromNought = false, isToTheEdges = false } = props;
  const values = [...lines.flatMap((one) => one.points.map(([, value]) => value)), ...limits];
  if (values.length === limits.length) return <p className={text.soft}>{label}: not read.</p>;
  const tick = { fill: "var(--ink-soft)", fontSize: 12 };
  return (
    <figure className={classes.chart} aria-label={label}>
      <figcaption className={text.soft}>{label}</figcaption>
      <ResponsiveContainer width="100%" height={220}>
        <ScatterChart margin={{ top: 8, right: 16, bottom: 18, left: 4 }}>
          <CartesianGrid stroke="var(--line)" />
          <XAxis
            type="number"
            dataKey="x"
            {...(isToTheEdges ? { domain: ["dataMin", "dataMax"] as const } : {})}
            name={x.name}
            tick={tick}
            label={{ value: x.name, position: "insideBottom", offset: -10, fill: "var(--ink-soft)" }}
          />
          <YAxis
            type="number"
            dataKey="y"
            name={y.name}
            width={64}
            tick={tick}
            domain={[isFromNought ? 0 : "auto", "auto"]}
            tickFormatter={(value: number) => String(Number(value.toPrecision(4)))}
            label={{ value: y.name, angle: -90, position: "insideLeft", fill: "var(--ink-soft)" }}
          />
          <Tooltip isAnimationActive={false} formatter={(value) => Number(Number(value).toPrecision(5))} />
          {limits.map((value) => (
            <ReferenceLine
              key={value}
              y={value}
              ifOverflow="extendDomain"
              stroke="var(--failed)"
              strokeDasharray="5 4"
            />
          ))}
          {lines.map((one, n) => (
            <Scatter
              key={one.name}
              name={one.name}
              data={one.points.map(([px, py]) => ({ x: px, y: py }))}
              line={{
                stroke: colours[n % colours.length],
                strokeWidth: 2,
                strokeDasharray: isDense ? dashes[n % dashes.length]?.[1] : undefined,
              }}
              fill={colours[n % colours.length]}
              shape={isDense ? noShape : shapes[n % shapes.length]}
              isAnimationActive={false}
            />
          ))}
        </ScatterChart>
      </ResponsiveContainer>
      {lines.length > 1 && (
        <div className={text.soft}>
          {lines
            .map((one, n) => `${one.name}: ${isDense ? dashes[n % dashes.length]?.[0] : shapes[n % shapes.length]}`)
            .join(", ")}
        </div>
      )}
    </figure>
  );
}
