import type { BundleJobState } from "@pale-cap/contract";

/** How a job of a bundle stands to what is here. */
export const bundleStateLabels: Readonly<Record<BundleJobState, string>> = {
  new: "new here",
  here: "here already",
  differs: "here already, and different: what is here stays",
  conflict: "cannot be taken in",
};
