import type { OrderedReplacement } from "@pale-cap/core";
import { lifeText, majorAmount } from "@pale-cap/wording";
import {
  CartesianGrid,
  ErrorBar,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  Tooltip,
  XAxis,
  YAxis,
} from "recharts";
import text from "../../ui/text.module.css";
import classes from "./choose.module.css";

const hoursOfYear = 8766;
/** Beyond so many years nothing is reckoned. */
const mostYears = 15;

interface Point {
  readonly id: string;
  readonly name: string;
  readonly price: number;
  readonly years: number;
  /** Up to where half have failed. */
  readonly span: readonly [number, number];
  readonly isPicked: boolean;
}

/** Life against price: a press on a mark picks the same line as the table. */
export function LifeAgainstPrice(props: {
  readonly rows: readonly OrderedReplacement[];
  readonly pickedIds: readonly string[];
  readonly onPick: (id: string) => void;
  readonly currency: string;
  /** Life of the old part when new, in this place's air; null: not known. */
  readonly oldHours: number | null;
}) {
  const years = (hours: number) => Math.min(hours / hoursOfYear, mostYears);
  const points = props.rows.map((row): Point => {
    const [low, high] = [years(row.tenPercentHours), years(row.medianHours)];
    return {
      ...{ id: row.part.id, name: `${row.part.maker} ${row.part.series}`, years: low, span: [0, high - low] },
      price: majorAmount(row.part.priceMinor, props.currency),
      isPicked: props.pickedIds.includes(row.part.id),
    };
  });
  return (
    <figure className={classes.chart}>
      <figcaption className={text.soft}>
        Years until one of ten has failed, the bar up to where half have; cut at {mostYears}. A press on a mark picks
        its line.
      </figcaption>
      <ResponsiveContainer width="100%" height={190}>
        <ScatterChart margin={{ top: 6, right: 12, bottom: 16, left: 0 }}>
          <CartesianGrid stroke="var(--line)" />
          <XAxis
            type="number"
            dataKey="price"
            tick={{ fill: "var(--ink-soft)", fontSize: 12 }}
            label={{ value: `price, ${props.currency}`, position: "insideBottom", offset: -8, fill: "var(--ink-soft)" }}
          />
          <YAxis
            type="number"
            dataKey="years"
            domain={[0, mostYears]}
            width={44}
            tick={{ fill: "var(--ink-soft)", fontSize: 12 }}
            label={{ value: "years", angle: -90, position: "insideLeft", fill: "var(--ink-soft)" }}
          />
          <Tooltip isAnimationActive={false} content={<PointNote />} />
          {props.oldHours !== null && (
            <ReferenceLine
              y={years(props.oldHours)}
              stroke="var(--failed)"
              strokeDasharray="5 4"
              label={{
                value: "the old part when new",
                fill: "var(--failed)",
                position: "insideTopRight",
                fontSize: 12,
              }}
            />
          )}
          <Scatter data={points} isAnimationActive={false} shape={<Mark onPick={props.onPick} />}>
            <ErrorBar dataKey="span" direction="y" width={5} stroke="var(--ink-soft)" />
          </Scatter>
        </ScatterChart>
      </ResponsiveContainer>
    </figure>
  );
}

/** A can from above, its stripe filled where it is picked. */
function Mark(props: {
  readonly cx?: number;
  readonly cy?: number;
  readonly payload?: Point;
  readonly onPick: (id: string) => void;
}) {
  const { cx = 0, cy = 0, payload, onPick } = props;
  if (!payload) return null;
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the boxes of the table do the same by keys
    <g onClick={() => onPick(payload.id)} style={{ cursor: "pointer" }}>
      <circle cx={cx} cy={cy} r={payload.isPicked ? 7 : 5.5} fill="var(--sleeve)" stroke="var(--can-edge)" />
      {payload.isPicked && <circle cx={cx} cy={cy} r={4} fill="var(--accent)" />}
    </g>
  );
}

function PointNote(props: { readonly payload?: readonly { readonly payload?: Point }[] }) {
  const point = props.payload?.[0]?.payload;
  if (!point) return null;
  return (
    <div className={classes.pointNote}>
      {point.name}: {lifeText(point.years * hoursOfYear)}
    </div>
  );
}
