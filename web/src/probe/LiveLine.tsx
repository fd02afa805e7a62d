import { formatQuantity, meterRange, type QuantityKind } from "@pale-cap/core";
import { kindLabels, quantityFacts, statusWords } from "@pale-cap/wording";
import type { Live } from "./instruments/useLive";
import { whoReads } from "./instruments/whoReads";
import classes from "./probe.module.css";

/** Who reads along: whether its probes sit at the target, whether its value stands still, or what is wrong with it. */
export function LiveLine(props: {
  readonly live: Live;
  readonly isTarget: boolean;
  readonly quantity: QuantityKind;
  /** Upper end of what is expected, for the range to set. */
  readonly expectedHigh: number | null;
}) {
  const { live, isTarget, quantity, expectedHigh } = props;
  const { instrument } = live;
  if (!isTarget) return null;
  if (!instrument) {
    const kind = whoReads[quantity]?.kind;
    const { unit } = quantityFacts[quantity];
    if (!kind) return null;
    const range =
      expectedHigh !== null && expectedHigh > 0 && unit !== "%"
        ? `, range ${formatQuantity(meterRange(expectedHigh), unit).text}`
        : "";
    return (
      <div className={classes.live}>
        {kindLabels[kind]}
        {range}
      </div>
    );
  }
  const words =
    instrument.status !== "ready"
      ? statusWords[instrument.status]
      : !live.isHere
        ? (live.refusal?.replace(`${instrument.name}: `, "") ?? "probes elsewhere (p)")
        : (instrument.trouble ??
          (live.value === null ? "reads open" : live.isSteady ? "live, steady" : "live, settling"));
  return (
    <div className={classes.live} data-steady={(live.isHere && live.isSteady) || undefined}>
      {instrument.name}
      {instrument.isSimulated && " (simulated)"}: {words}
    </div>
  );
}
