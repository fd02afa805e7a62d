import type { HouseRuleValues, OrderRow } from "@pale-cap/contract";
import { moneyText } from "@pale-cap/wording";
import { pdfOf, words } from "./fonts";
import { ink, pageSizes, soft } from "./look";

/** An order as it goes to a supplier: what, how many, at which price it was reckoned. */
export function orderPdf(order: OrderRow, houseRules: HouseRuleValues, day: string): Promise<Buffer> {
  const currency = houseRules["shop.currency"];
  const total = order.lines.reduce((sum, one) => sum + one.count * one.unitMinor, 0);
  const right = { alignment: "right" as const };
  const row = (cells: readonly string[], more: object = {}) =>
    cells.map((cell, n) => words(cell, { ...more, ...(n >= 3 ? right : {}) }));
  return pdfOf(
    {
      pageSize: pageSizes[houseRules["shop.paper"]],
      pageMargins: [48, 48, 48, 54],
      info: { title: `Order, ${order.supplierName}, ${day}` },
      content: [
        words(`Order to ${order.supplierName}`, { fontSize: 17, bold: true, color: ink }),
        words(day, { color: soft, margin: [0, 0, 0, 8] }),
        {
          table: {
            headerRows: 1,
            widths: ["auto", "auto", "*", "auto", "auto", "auto"],
            body: [
              row(["Order code", "Maker", "Series and rating", "Pieces", "Each", "Together"], {
                bold: true,
                color: soft,
              }),
              ...order.lines.map(({ part, count, unitMinor }) =>
                row([
                  part.orderCode,
                  part.maker,
                  `${part.series}, ${Number((part.capacitanceFarads * 1e6).toPrecision(4))} µF ${part.ratedVolts} V`,
                  String(count),
                  moneyText(unitMinor, currency),
                  moneyText(count * unitMinor, currency),
                ]),
              ),
              row(["Together", "", "", "", "", moneyText(total, currency)], { bold: true }),
            ],
          },
          layout: "lightHorizontalLines",
          fontSize: 9,
        },
        ...(order.note ? [words(order.note, { margin: [0, 8, 0, 0] })] : []),
        words("Prices as they were noted when this was written, without shipping and tax.", {
          color: soft,
          margin: [0, 8, 0, 0],
        }),
      ],
      footer: (page, count) => ({
        columns: [
          words([houseRules["shop.name"], houseRules["shop.contact"]].filter(Boolean).join(" · "), {
            fontSize: 8,
            color: soft,
          }),
          words(`page ${page} of ${count}`, { fontSize: 8, color: soft, ...right }),
        ],
        margin: [48, 16, 48, 0],
      }),
    },
    new Date(order.at),
  );
}
