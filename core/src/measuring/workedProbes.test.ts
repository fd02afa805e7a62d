import { describe, expect, it } from "vitest";
import { sampleRules } from "../../testing/sampleJob";
import { line } from "../../testing/told";
import { workedJobs } from "../../testing/workedJobs";
import { judgeBoard } from "../judgement/judgeBoard";
import type { QuantityKind } from "../readings/reading";
import { expectedReading } from "./expectedReading";
import { nextTargets } from "./nextTargets";
import { probePoints } from "./probePoints";

/** Everything that the bar and the list of points say of four jobs, held to the last number. */
describe.each(Object.entries(workedJobs))("%s", (_name, facts) => {
  it("has its probe points, each once", () => {
    expect(probePoints(facts).map((one) => line(one))).toMatchSnapshot();
  });

  it("says what each should read", () => {
    const quantities = ["esr", "capacitance", "dissipation", "voltage_loss", "leakage_current", "temperature"] as const;
    const asked = [
      ...facts.positions.flatMap(({ id }) => quantities.map((quantity) => ["part", id, quantity, null] as const)),
      ...facts.nets.flatMap(({ id }) =>
        (["dc_voltage", "ripple_voltage", "ac_voltage"] as const).map(
          (quantity) => ["rail", id, quantity, null] as const,
        ),
      ),
      ...probePoints(facts).map((one) => ["part", one.targetId, one.quantity, one.terminals || null] as const),
    ];
    const lines = asked.flatMap(([targetKind, targetId, quantity, terminals]) =>
      (["in_circuit", "lead_lifted"] as const).flatMap((circuitState) => {
        const frequencyHertz = frequencyOf(quantity);
        const question = { targetKind, targetId, quantity, terminals, circuitState, frequencyHertz };
        const found = expectedReading(facts, sampleRules, { ...question, temperatureCelsius: 25, leadOhms: 0.01 });
        return found ? [`${targetId} ${terminals ?? ""} ${quantity} ${circuitState} ${line(found)}`] : [];
      }),
    );
    expect(lines.length).toBeGreaterThan(40);
    expect(lines).toMatchSnapshot();
  });

  it.each(["failed_only", "same_group", "all_electrolytics", "whole_supply"] as const)(
    "says what to read next where the shop replaces %s",
    (strategy) => {
      const judgements = judgeBoard(facts, sampleRules.judgement);
      const isChargeVerified = strategy === "same_group";
      const found = nextTargets({ facts, judgements, deviceKind: "monitor", strategy, isChargeVerified });
      expect(found.map((one) => line(one))).toMatchSnapshot();
    },
  );
});

const frequencyOf = (quantity: QuantityKind) => (quantity === "esr" ? 100e3 : 120);
