import { type JudgementConstants, judgementConstants } from "../constants/judgementConstants";

/**
 * The constants by which the application judges: the reference set, with what the study of judgement taught
 * (docs/judgement.md). Tuned on one set of seeds and reported on another.
 */
export const tunedConstants: JudgementConstants = judgementConstants;
