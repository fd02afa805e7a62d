import { expect, it } from "vitest";
import { amountText, majorAmount, minorAmount, moneyText } from "./money";

it.each([
  ["EUR", 8550, "€85.50", 85.5, "85.50"],
  ["JPY", 8550, "JP¥8,550", 8550, "8550"],
  ["KWD", 8550, "KWD 8.550", 8.55, "8.550"],
])("%s has its own digits, printed and typed", (currency, minor, text, major, plain) => {
  expect(moneyText(minor, currency).replaceAll("\u00a0", " ")).toBe(text);
  expect(majorAmount(minor, currency)).toBe(major);
  expect(minorAmount(major, currency)).toBe(minor);
  expect(amountText(minor, currency)).toBe(plain);
});

it("stores what was typed to the nearest minor unit", () => {
  expect(minorAmount(19.999, "EUR")).toBe(2000);
  expect(minorAmount(0.285 * 100, "EUR")).toBe(2850);
});
