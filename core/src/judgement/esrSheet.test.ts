import { expect, it } from "vitest";
import { esrSheet, sheetMicrofarads, sheetVolts } from "./esrSheet";

const sheet = (more: Partial<Parameters<typeof esrSheet>[0]> = {}) =>
  esrSheet({ capacitorClass: "lowz", frequencyHertz: 100e3, temperatureCelsius: 20, school: "twenty", ...more });
const row = (microfarads: (typeof sheetMicrofarads)[number]) => sheetMicrofarads.indexOf(microfarads);
const column = (volts: (typeof sheetVolts)[number]) => sheetVolts.indexOf(volts);

it("has the same cell as a single part of that marking, and the school's limit", () => {
  const cell = sheet()[row(1000)]?.[column(16)];
  expect(cell?.failedOhms).toBeCloseTo(3 * (cell?.expected.typicalOhms ?? 0), 12);
  expect(sheet({ school: "ten" })[row(1000)]?.[column(16)]?.failedOhms).toBeCloseTo(
    2 * (cell?.expected.typicalOhms ?? 0),
    12,
  );
});
it("falls with capacitance, rises in the cold and towards low frequency", () => {
  const at = (microfarads: (typeof sheetMicrofarads)[number], more = {}) =>
    sheet(more)[row(microfarads)]?.[column(25)]?.expected.typicalOhms ?? Number.NaN;
  for (let n = 1; n < 14; n++) {
    expect(at(sheetMicrofarads[n] ?? 1)).toBeLessThan(at(sheetMicrofarads[n - 1] ?? 1));
  }
  expect(at(470, { temperatureCelsius: 0 })).toBeGreaterThan(at(470));
  expect(at(470, { frequencyHertz: 120 })).toBeGreaterThan(at(470));
});
it("leaves out what nobody makes", () => {
  expect(sheet()[row(4700)]?.[column(450)]).toBeNull();
  expect(sheet({ capacitorClass: "polymer" })[row(100)]?.[column(400)]).toBeNull();
});
