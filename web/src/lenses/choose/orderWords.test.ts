import { dayText } from "@pale-cap/wording";
import { expect, it } from "vitest";
import { orderWords } from "./orderWords";

it("counts the days of an order from the shop's own day", () => {
  // Half past eight in the evening there; the next day in Greenwich.
  const evening = Date.parse("2026-11-25T01:30:00Z");
  const rules = { "shop.orderDays": 1.5, "shop.timeZone": "America/New_York" };
  const there = `ordered, ${dayText("2026-11-26")}`;
  expect(orderWords(rules, "2026-11-26", evening)).toBe(there);
  expect(orderWords(rules, null, evening)).toBe(there);
  expect(orderWords(rules, "2026-11-25", evening)).toBe(`${there}: after it is due`);
});
