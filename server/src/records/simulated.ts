import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";

/**
 * Whether a value came from a simulated instrument, by what the client says or by the instrument's name; refused on a job of
 * a customer: it says something of the simulated supply, not of the unit.
 */
export async function simulatedHere(
  scope: Scope,
  value: { readonly isSimulated?: boolean | undefined; readonly instrument?: string | null },
): Promise<boolean> {
  const { instrument = null } = value;
  const isNamed =
    instrument !== null && (await scope.rows.instruments.has({ name: instrument, transport: "simulated" }));
  const isSimulated = value.isSimulated === true || isNamed;
  if (isSimulated && scope.job?.takesSimulated !== true) {
    throw new HttpProblem(
      "conflict",
      "A simulated instrument reads no customer's unit: only a practice job takes its values.",
    );
  }
  return isSimulated;
}
