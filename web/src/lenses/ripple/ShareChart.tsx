import { formatQuantity, type RailRipple } from "@pale-cap/core";
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { useJob } from "../../job/JobContext";
import classes from "./ripple.module.css";

/** Current in each capacitor as it is now and after replacement, beside what it is rated for. */
export function ShareChart({ measured, replaced }: { readonly measured: RailRipple; readonly replaced: RailRipple }) {
  const { detail } = useJob();
  const data = measured.shares.map((share, n) => ({
    name: detail.positions.find((one) => one.id === share.positionId)?.designator ?? "?",
    "as read": share.equivalentAmpsRms,
    "after replacement": replaced.shares[n]?.equivalentAmpsRms ?? 0,
    rated: share.ratedAmpsRms ?? 0,
  }));
  const amps = (value: number) => formatQuantity(value, "A", { significantDigits: 2 }).text;
  return (
    <div className={classes.shares}>
      <ResponsiveContainer width="100%" height="100%">
        <BarChart data={data} margin={{ top: 6, right: 16, bottom: 0, left: 6 }} barGap={1}>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          <XAxis dataKey="name" stroke="var(--ink-soft)" />
          <YAxis width={74} tickFormatter={amps} stroke="var(--ink-soft)" />
          <Tooltip
            formatter={(value) => `${amps(Number(value))} RMS, as at 100 kHz`}
            contentStyle={{ background: "var(--panel)", borderColor: "var(--line)" }}
            cursor={{ fill: "var(--wash)" }}
            isAnimationActive={false}
          />
          <Legend
            verticalAlign="top"
            height={24}
            formatter={(name: string) => <span style={{ color: "var(--ink)" }}>{name}</span>}
          />
          <Bar dataKey="as read" fill="var(--failed)" maxBarSize={46} isAnimationActive={false} />
          <Bar dataKey="after replacement" fill="var(--accent)" maxBarSize={46} isAnimationActive={false} />
          <Bar dataKey="rated" fill="var(--line)" stroke="var(--ink-soft)" maxBarSize={46} isAnimationActive={false} />
        </BarChart>
      </ResponsiveContainer>
    </div>
  );
}
