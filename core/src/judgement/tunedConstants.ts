import { type JudgementConstants, judgementConstants } from "../constants/judgementConstants";

/**
 * The constants by which the application judges: the reference set, with what the study of judgement taught
 * (docs/judgement.md). Tuned on one set of seeds and reported on another.
 *
 * `clear_cap`, `clip_lo`: what is measured and in order may clear further than the reference lets it. `z90`: the band of
 * new parts is taken as a little narrower than its ends say, so that parts near a limit are told apart.
 */
export const tunedConstants: JudgementConstants = {
  ...judgementConstants,
  B: { ...judgementConstants.B, clip_lo: -7, z90: 2.2, clear_cap: { no_esr: -2.1, no_c: -5.2, full: -7 } },
};
