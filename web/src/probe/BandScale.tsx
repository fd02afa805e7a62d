import { useElementSize } from "@mantine/hooks";
import { formatQuantity, type Unit } from "@pale-cap/core";
import type { Expectation } from "./expectation";
import classes from "./probe.module.css";

const inset = 18;

/** The expected band as ticks on a scale (logarithmic where values span decades) with the reading as a pointer. */
export function BandScale(props: {
  readonly band: Expectation | null;
  readonly value: number | null;
  readonly unit: Unit;
  /** What to say where there is no band. */
  readonly hint: string;
}) {
  const { band, value, unit } = props;
  const { ref, width: full } = useElementSize();
  if (!band) return <div className={classes.noBand}>{props.hint}</div>;
  // A band that begins at nothing has no decades.
  const isLogarithmic = (unit === "Ω" || unit === "F") && band.low > 0;
  const [from, to] = scaleEnds(band, isLogarithmic);
  const width = Math.max(full - 2 * inset, 40);
  const place = (x: number) => {
    const share = isLogarithmic ? Math.log(x / from) / Math.log(to / from) : (x - from) / (to - from);
    return Math.min(Math.max(share, 0), 1) * width;
  };
  const bad = band.badFrom === null ? null : place(band.badFrom);
  const ticks = isLogarithmic ? decades(from, to) : band.low === 0 ? [0, band.high] : [band.low, band.high];
  // The two ends of a narrow band would run into each other: each leans away from the band.
  const anchorOf = (tick: number) => (isLogarithmic ? "middle" : tick === band.low && tick !== 0 ? "end" : "start");
  const printed = (x: number) => formatQuantity(x, unit, { significantDigits: 3 }).text;
  return (
    <div ref={ref} className={classes.scale}>
      <svg
        viewBox={`${-inset} 0 ${width + 2 * inset} 62`}
        width={width + 2 * inset}
        height="62"
        role="img"
        aria-label={`expected ${printed(band.low)} to ${printed(band.high)}`}
      >
        <text x={-inset} y="12" className={classes.expected}>
          expected {printed(band.low)} to {printed(band.high)}, {band.note}
        </text>
        {bad !== null && (
          <>
            <rect
              className={classes.doubt}
              x={Math.min(place(band.high), bad)}
              width={Math.abs(bad - place(band.high))}
              y="28"
              height="5"
            />
            <rect
              className={classes.bad}
              x={band.isLowBad ? 0 : bad}
              width={band.isLowBad ? bad : width - bad}
              y="30"
              height="3"
            />
          </>
        )}
        <rect
          className={classes.good}
          x={place(band.low)}
          width={Math.max(place(band.high) - place(band.low), 2)}
          y="24"
          height="9"
        />
        <path className={classes.axis} d={`M0 33H${width}`} />
        {ticks.map((tick) => (
          <g key={tick} transform={`translate(${place(tick)} 33)`}>
            <path className={classes.axis} d="M0-4V4" />
            <text className={classes.tick} y="18" textAnchor={anchorOf(tick)}>
              {printed(tick)}
            </text>
          </g>
        ))}
        {value !== null && Number.isFinite(value) && (!isLogarithmic || value > 0) && (
          <path className={classes.pointer} d="M-6 15H6L0 24V36" transform={`translate(${place(value)} 0)`} />
        )}
      </svg>
    </div>
  );
}

function scaleEnds(band: Expectation, isLogarithmic: boolean): readonly [number, number] {
  if (isLogarithmic)
    return band.isLowBad ? [band.low / 20, band.high * 4] : [band.low / 3, Math.max(band.high, band.badFrom ?? 0) * 60];
  const span = Math.max(Math.abs(band.high - band.low), 1e-9);
  return band.low === 0 ? [0, band.high * 3] : [band.low - 2 * span, band.high + 2 * span];
}

function decades(from: number, to: number): number[] {
  const ticks: number[] = [];
  for (let exponent = Math.ceil(Math.log10(from)); 10 ** exponent <= to; exponent++)
    ticks.push(Number(`1e${exponent}`));
  return ticks;
}
