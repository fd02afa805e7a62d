import type { VerdictWord } from "@pale-cap/core";

export const verdictLabels: Readonly<Record<VerdictWord, string>> = {
  sound: "sound",
  worn: "worn",
  failed: "failed",
  cannot_tell: "cannot tell",
  not_measured: "not measured",
};
