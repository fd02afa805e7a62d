import { boardLimits } from "@pale-cap/contract";
import type { ComponentProps } from "react";
import { QuantityInput } from "../../../ui/QuantityInput";

const quantities = {
  volts: { unit: "V", placeholder: "volts", limits: [-boardLimits.railVolts, boardLimits.railVolts] },
  tolerance: { unit: "%", placeholder: "±", limits: [0.001, 0.5] },
  amps: { unit: "A", placeholder: "load", limits: [0.001, boardLimits.railAmps] },
} as const;

/** What a rail should have, or must deliver: one small field of its line. */
export function RailField({
  of,
  ...field
}: { readonly of: keyof typeof quantities } & Omit<ComponentProps<typeof QuantityInput>, "unit">) {
  return <QuantityInput isLabelHidden isCompact size="xs" {...quantities[of]} {...field} />;
}
