import { requirePositive } from "../numerics/requireRange";

/**
 * Where the ESR of an output capacitor puts its zero into the control loop, and how it damps the choke, before and after.
 *
 *     fz = 1 / (2 pi ESR C),  Q = sqrt(L / C) / ESR
 *
 * Solid; what change a loop tolerates is rough.
 *
 * @param chokeHenrys null where there is none: no Q
 * @throws {OutOfRangeError} values not above 0
 */
export function esrZero(
  before: { readonly esrOhms: number; readonly capacitanceFarads: number },
  after: { readonly esrOhms: number; readonly capacitanceFarads: number },
  chokeHenrys: number | null = null,
) {
  const of = (part: typeof before) => {
    const esr = requirePositive("esrOhms", part.esrOhms);
    const C = requirePositive("capacitanceFarads", part.capacitanceFarads);
    const q = chokeHenrys === null ? null : Math.sqrt(requirePositive("chokeHenrys", chokeHenrys) / C) / esr;
    return { hertz: 1 / (2 * Math.PI * esr * C), q };
  };
  const [old, next] = [of(before), of(after)];
  return {
    beforeHertz: old.hertz,
    afterHertz: next.hertz,
    ratio: next.hertz / old.hertz,
    beforeQ: old.q,
    afterQ: next.q,
  };
}
