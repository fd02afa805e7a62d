import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { type Scenario, scenarioSchema } from "@pale-cap/contract";

export const scenarioFolder = fileURLToPath(new URL("../scenarios", import.meta.url));

/** Reads and checks every scenario of a folder, in the order of their names. */
export function loadScenarios(folder = scenarioFolder): readonly Scenario[] {
  return readdirSync(folder)
    .filter((file) => file.endsWith(".json"))
    .sort()
    .map((file) => {
      try {
        return parseScenario(JSON.parse(readFileSync(join(folder, file), "utf8")));
      } catch (error) {
        throw new Error(`Scenario ${file}: ${error instanceof Error ? error.message : String(error)}`);
      }
    });
}

/** A scenario that holds together: every net and pin that is named is there. */
export function parseScenario(value: unknown): Scenario {
  const scenario = scenarioSchema.validateSync(value) as unknown as Scenario;
  const nets = new Set(scenario.nets.map((net) => net.name));
  const missing = (name: string, where: string) => {
    if (!nets.has(name)) throw new Error(`${where} names the net "${name}", which is not there.`);
  };
  for (const part of scenario.capacitors) missing(part.net, part.at);
  for (const net of scenario.nets) if (net.behind) missing(net.behind, net.name);
  missing(scenario.control.net, "control");
  if (scenario.control.startVolts <= scenario.control.stopVolts)
    throw new Error("control starts at or below where it stops.");
  const names = [...scenario.capacitors, ...scenario.devices].map((one) => one.at);
  for (const { at } of scenario.thermal.masses ?? []) {
    if (!names.includes(at)) throw new Error(`A thermal mass names ${at}, which is not there.`);
  }
  for (const { name, loop } of scenario.nets) {
    if (loop && loop.integratorHertz >= loop.crossoverHertz)
      throw new Error(`The loop of ${name} integrates at or above its crossover.`);
  }
  const twice = names.find((name, n) => names.indexOf(name) !== n);
  if (twice) throw new Error(`${twice} is there twice.`);
  for (const device of scenario.devices) {
    if (Object.keys(device.pins).length < 2) throw new Error(`${device.at} has fewer than two pins.`);
    for (const node of Object.values(device.pins)) {
      if (typeof node !== "string" || node === "") throw new Error(`${device.at} has a pin that goes nowhere.`);
    }
  }
  return scenario;
}
