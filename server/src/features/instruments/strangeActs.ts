import { type InstrumentAct, instrumentFunctions, instrumentSettings } from "@pale-cap/contract";
import { HttpProblem } from "../../http/problems";

/** An act must be one that this kind of instrument understands. */
export function refuseStrangeAct(act: InstrumentAct, kind: keyof typeof instrumentFunctions): void {
  if (act.function && !(instrumentFunctions[kind] as readonly string[]).includes(act.function)) {
    throw new HttpProblem("invalid_body", `This instrument does not read ${act.function}.`);
  }
  const strange = Object.entries(act.settings ?? {}).find(
    ([name, value]) =>
      !instrumentSettings[kind].includes(name) || (typeof value !== "string" && typeof value !== "number"),
  );
  if (strange) throw new HttpProblem("invalid_body", `This instrument has no switch “${strange[0]}”.`);
}
