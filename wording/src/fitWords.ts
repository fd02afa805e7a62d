import type { PlaceFit, PlaceFits } from "@pale-cap/core";

const mm = (metres: number) => `${(metres * 1e3).toFixed(1)} mm`;

function standing({ fit, spareMetres, addedHenrys }: PlaceFit, nearest: string | null): string {
  const beside = nearest === null ? "nothing drawn beside it" : `${mm(fit.clearanceMetres ?? 0)} to what is nearest`;
  const tight =
    nearest !== null && spareMetres !== null ? `, ${mm(Math.max(0, spareMetres))} spare beside ${nearest}` : "";
  const lid = fit.headroomMetres === null ? "" : `, ${mm(fit.headroomMetres)} under the lid`;
  const adds = addedHenrys > 0 ? `, its leads add ${(addedHenrys * 1e9).toFixed(0)} nH` : "";
  return `${beside}${tight}${lid}${adds}`;
}

/** What the drawing was held against, and what it cannot know. */
export function clearanceWords(rules: {
  readonly "choose.secondaryClearanceMillimetres": number;
  readonly "choose.earthedClearanceMillimetres": number;
  readonly "choose.hotClearanceMillimetres": number;
}): string {
  const { "choose.secondaryClearanceMillimetres": secondary, "choose.earthedClearanceMillimetres": earthed } = rules;
  return `Held against the drawing: ${secondary} mm between mains side and secondary and ${earthed} mm to earthed metal, or what the design had where that was less; ${rules["choose.hotClearanceMillimetres"]} mm to what is hot. Measure it on the board: local rules come first, a sleeve insulates nothing.`;
}

/** How a chosen can fits its place by the drawing, and what could be done where it does not. */
export function fitWords({ upright, raised, laid }: PlaceFits, nameOf: (id: string) => string): string {
  const near = (one: PlaceFit) => (one.nearestId === null ? null : nameOf(one.nearestId));
  if (upright.fit.fits) return `Upright by the drawing: ${standing(upright, near(upright))}.`;
  const { headroomMetres } = upright.fit;
  const isLow = headroomMetres !== null && headroomMetres < 1e-3;
  const isNear = upright.spareMetres !== null && upright.spareMetres < 0;
  const why = [
    ...(isNear ? [`${near(upright)} stands ${mm(-(upright.spareMetres ?? 0))} too near`] : []),
    ...(isLow
      ? [`the lid leaves ${mm(Math.max(0, headroomMetres ?? 0))}`]
      : isNear
        ? []
        : ["the vent wants more room under the lid"]),
  ].join(", and ");
  if (raised) {
    const lift = raised.pose.mode === "upright" ? raised.pose.liftMetres : 0;
    return `Standing on the board it does not go by the drawing: ${why}. Raised ${mm(lift)} on a support it does: ${standing(raised, near(raised))}. Sleeve its leads and fix it to the support.`;
  }
  if (!laid) return `Upright it does not go by the drawing: ${why}. Laid flat it goes nowhere either.`;
  return `Upright it does not go by the drawing: ${why}. Laid flat it does: ${standing(laid, near(laid))}. Sleeve its leads and fix the can.`;
}
