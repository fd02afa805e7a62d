import type { BetaInterval } from "@pale-cap/core";
import classes from "./ui.module.css";

const percent = (ratio: number) => `${100 * ratio}%`;

/** Where a share lies between none and all; the words beside it say the same. */
export function ShareBand({
  share,
  isLoud = false,
}: {
  readonly share: BetaInterval | null;
  readonly isLoud?: boolean;
}) {
  return (
    <div className={classes.shareBand} aria-hidden="true">
      {share && (
        <>
          <div
            className={classes.shareRange}
            data-loud={isLoud || undefined}
            style={{ left: percent(share.lowRatio), width: percent(share.highRatio - share.lowRatio) }}
          />
          <div className={classes.shareMean} style={{ left: percent(share.meanRatio) }} />
        </>
      )}
    </div>
  );
}
