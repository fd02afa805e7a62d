import type { CaptureRig } from "@pale-cap/contract";

/** What a capture was taken with until somebody says otherwise. */
export const plainRig: CaptureRig = {
  hasLongGroundLead: false,
  isAcCoupled: true,
  isIsolationTransformer: false,
  isBandwidthLimited: false,
};
