import { expect, it } from "vitest";
import { sampleReading } from "../../testing/sampleJob";
import { coarseFindings } from "./coarseEvidence";

it("weighs a hot can by the air beside it: hot in a cool room, less without the air, nothing in a hot one", () => {
  const heat = (value: number, temperatureCelsius: number | null) =>
    coarseFindings([sampleReading("C1", { quantity: "temperature", value, temperatureCelsius })], false).map(
      ({ code, weight }) => [code, weight],
    )[0];
  expect(heat(90, 25)).toEqual(["temperature_high", 1.2]);
  expect(heat(90, null)).toEqual(["temperature_without_air", 0.4]);
  expect(heat(70, 55)).toEqual(["temperature_usual", 0]);
  expect(heat(50, 20)).toEqual(["temperature_usual", 0]);
});
