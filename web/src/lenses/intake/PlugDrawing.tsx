import type { PlugPolarity } from "@pale-cap/contract";
import { plugLabels } from "@pale-cap/wording";

/** A round plug from its open end: the pin in the middle, the sleeve around it, each with its sign. */
export function PlugDrawing({ polarity }: { readonly polarity: PlugPolarity | null }) {
  const signs: Readonly<Record<PlugPolarity, readonly [string, string]>> = {
    centre_positive: ["+", "−"],
    centre_negative: ["−", "+"],
    other: ["?", "?"],
  };
  const [pin, sleeve] = polarity ? signs[polarity] : ["", ""];
  return (
    <svg
      viewBox="0 0 92 44"
      width="92"
      height="44"
      role="img"
      aria-label={polarity ? `Plug, ${plugLabels[polarity]}` : "Plug, polarity unknown"}
    >
      <circle cx="24" cy="22" r="19" fill="var(--sleeve)" stroke="var(--can-edge)" strokeWidth="2" />
      <circle cx="24" cy="22" r="12" fill="none" stroke="var(--can-edge)" strokeWidth="1" />
      <circle cx="24" cy="22" r="5" fill="var(--stripe)" />
      <path d="M29 20H62M40 35H62" stroke="var(--ink-soft)" fill="none" />
      <text x="68" y="25" fontSize="18" fontWeight="700" fill="var(--ink)">
        {pin}
      </text>
      <text x="68" y="42" fontSize="18" fontWeight="700" fill="var(--ink)">
        {sleeve}
      </text>
    </svg>
  );
}
