import type { VerdictWord } from "@pale-cap/core";

/**
 * The verdict as a shape: filled disc, half disc, disc split by a cross like an opened vent, dotted ring, thin ring.
 * Colour only repeats what the shape says. Draws inside an SVG at (0, 0) with radius 7.
 */
export function VerdictShape({ verdict }: { readonly verdict: VerdictWord }) {
  switch (verdict) {
    case "sound":
      return <circle r="7" fill="var(--sound)" />;
    case "worn":
      return (
        <>
          <circle r="6.2" fill="var(--sleeve)" stroke="var(--worn)" strokeWidth="1.8" />
          <path d="M0-6.5a6.5 6.5 0 0 1 0 13z" fill="var(--worn)" />
        </>
      );
    case "failed":
      return (
        <>
          <circle r="7" fill="var(--failed)" />
          <path d="M-4.2-4.2 4.2 4.2M4.2-4.2-4.2 4.2" stroke="var(--sleeve)" strokeWidth="2.2" />
        </>
      );
    case "cannot_tell":
      return <circle r="6.2" fill="none" stroke="var(--unknown)" strokeWidth="2.2" strokeDasharray="2.4 2.47" />;
    case "not_measured":
      return <circle r="6.2" fill="none" stroke="var(--unknown)" strokeWidth="1.1" />;
  }
}

export function VerdictGlyph({ verdict, size = 16 }: { readonly verdict: VerdictWord; readonly size?: number }) {
  return (
    <svg
      viewBox="-8 -8 16 16"
      width={size}
      height={size}
      aria-hidden="true"
      style={{ flex: "none", verticalAlign: "-0.18em" }}
    >
      <VerdictShape verdict={verdict} />
    </svg>
  );
}
