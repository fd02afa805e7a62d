import type { HouseRuleValues } from "@pale-cap/contract";
import { shopDayOf, stockDeadline } from "@pale-cap/core";
import { dayText } from "@pale-cap/wording";

const notInADrawer = [{ partId: "ordered", stockCount: 0 }];

/** When a part that is ordered now would be there, and whether the unit is due before. */
export function orderWords(
  houseRules: Pick<HouseRuleValues, "shop.orderDays" | "shop.timeZone">,
  dueOn: string | null,
  nowMilliseconds: number,
): string {
  const today = shopDayOf(nowMilliseconds, houseRules["shop.timeZone"]);
  const { readyOn, isInTime } = stockDeadline(notInADrawer, today, dueOn, houseRules["shop.orderDays"]);
  return `ordered, ${dayText(readyOn)}${isInTime === false ? ": after it is due" : ""}`;
}
