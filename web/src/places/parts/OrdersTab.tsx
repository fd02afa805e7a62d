import { Button } from "@mantine/core";
import type { CatalogueRow, OrderBasis, SupplierRow } from "@pale-cap/contract";
import { type OrderNeed, orderNeeds, type Supplier, splitLongOrder } from "@pale-cap/core";
import { listWords, moneyText } from "@pale-cap/wording";
import Papa from "papaparse";
import { useMemo } from "react";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useHouseRulesQuery } from "../../job/houseRulesApi";
import { download } from "../../ui/download";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { OpenOrders } from "./OpenOrders";
import classes from "./parts.module.css";
import { useOrderBasisQuery, usePlaceOrderMutation, useSuppliersQuery } from "./partsApi";
import { Suppliers } from "./Suppliers";

/** What is missing, who delivers it best, what is on its way, and who the suppliers are. */
export function OrdersTab() {
  const { data: basis, error } = useOrderBasisQuery();
  const { data: suppliers } = useSuppliersQuery();
  const { data: rules } = useHouseRulesQuery();
  const needs = useMemo(
    () =>
      basis && rules
        ? orderNeeds(basis.places, basis.parts, {
            leadDays: Math.max(rules["shop.orderDays"], 1),
            service: rules["stock.service"],
            orderCostMinor: rules["stock.orderCostMinor"],
            holdRatioPerYear: rules["stock.holdRatio"],
          })
        : [],
    [basis, rules],
  );
  return (
    <>
      <ProblemNote problem={asProblem(error)} />
      <div className={classes.split}>
        <div className={classes.list}>
          {basis && suppliers && rules && (
            <Needs needs={needs} basis={basis} suppliers={suppliers} currency={rules["shop.currency"]} />
          )}
          <OpenOrders />
        </div>
        <div className={classes.list}>{rules && <Suppliers currency={rules["shop.currency"]} />}</div>
      </div>
    </>
  );
}

function Needs(props: {
  readonly needs: readonly OrderNeed[];
  readonly basis: OrderBasis;
  readonly suppliers: readonly SupplierRow[];
  readonly currency: string;
}) {
  const { needs, basis, suppliers, currency } = props;
  const personId = useAppSelector((state) => state.workplace.personId);
  const [place, { error, isLoading }] = usePlaceOrderMutation();
  const partOf = new Map(basis.parts.map((one) => [one.cataloguePartId, one.part]));
  const split = useMemo(() => splitOf(needs, suppliers), [needs, suppliers]);
  if (needs.length === 0) {
    return (
      <Part title="To be ordered">
        <p className={text.soft}>
          Nothing: every chosen part is set aside or on its way, and nothing fell to its reorder point.
        </p>
      </Part>
    );
  }
  const lineOf = (id: string) => split?.lines?.find((one) => one.itemId === id);
  const chosen = suppliers.filter((one) => split?.lines?.some((line) => line.supplierId === one.id));
  const order = (supplierId: string) =>
    place({
      ...{ id: newId(), supplierId, note: null, personId },
      lines: (split?.lines ?? [])
        .filter((one) => one.supplierId === supplierId)
        .map((one) => ({ id: newId(), cataloguePartId: one.itemId, count: one.count, unitMinor: one.unitMinor })),
    });
  return (
    <Part
      title="To be ordered"
      aside={
        <Button size="compact-sm" onClick={() => download("order-list.csv", csvOf(props, split), "text/csv")}>
          As a file
        </Button>
      }
    >
      <table className={`${text.table} ${text.ruled} ${classes.table}`} aria-label="To be ordered">
        <TableHead names={["Part", "For", "Need", "From", "Order", "Each"]} />
        <tbody>
          {needs.map((need) => {
            const line = lineOf(need.cataloguePartId);
            return (
              <tr key={need.cataloguePartId}>
                <td>{partName(partOf.get(need.cataloguePartId))}</td>
                <td className={classes.note}>{whyText(need, basis)}</td>
                <td className={text.figure}>{need.count}</td>
                <td>{suppliers.find((one) => one.id === line?.supplierId)?.name ?? "nobody offers it"}</td>
                <td className={text.figure}>{line?.count ?? ""}</td>
                <td className={text.figure}>{line ? moneyText(line.unitMinor, currency) : ""}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {split?.totalMinor != null && (
        <p>
          Together {moneyText(split.totalMinor, currency)}, of it {moneyText(split.shippingMinor ?? 0, currency)}{" "}
          shipping; the last comes after {split.days} {split.days === 1 ? "day" : "days"}.{" "}
          <span className={text.softLine}>
            {split.isProven
              ? "No other way to split it is cheaper."
              : "The best that was found: with free shipping from some value on, another split may be cheaper."}
          </span>
        </p>
      )}
      <div className={classes.row}>
        {chosen.map((one) => (
          <Button key={one.id} loading={isLoading} onClick={() => void order(one.id)}>
            Ordered at {one.name}
          </Button>
        ))}
      </div>
      <ProblemNote problem={asProblem(error)} />
    </Part>
  );
}

const partName = (part: CatalogueRow | undefined) => (part ? `${part.maker} ${part.series} ${part.orderCode}` : "?");

function splitOf(needs: readonly OrderNeed[], suppliers: readonly SupplierRow[]) {
  const used = suppliers
    .filter((one) => one.isUsed)
    .map(
      (one): Supplier => ({
        ...{ id: one.id, shippingMinor: one.shippingMinor, freeFromMinor: one.freeFromMinor, days: one.days },
        offers: new Map(one.offers.map((offer) => [offer.cataloguePartId, offer])),
      }),
    );
  if (needs.length === 0 || used.length === 0) return null;
  return splitLongOrder(
    needs.map((one) => ({ id: one.cataloguePartId, count: one.count })),
    used,
    null,
  );
}

function whyText(need: OrderNeed, basis: OrderBasis): string {
  const jobs = basis.places
    .filter((one) => one.cataloguePartId === need.cataloguePartId)
    .map((one) => `${String(one.jobNumber).padStart(4, "0")} ${one.designator}`);
  const shelf = need.forShelfCount > 0 ? [`the drawer, at ${need.reorderPoint} or below`] : [];
  return listWords([...(need.forJobsCount > 0 ? jobs : []), ...shelf]);
}

function csvOf(
  { needs, basis, suppliers, currency }: Parameters<typeof Needs>[0],
  split: ReturnType<typeof splitOf>,
): string {
  const data = needs.map((need) => {
    const part = basis.parts.find((one) => one.cataloguePartId === need.cataloguePartId)?.part;
    const line = split?.lines?.find((one) => one.itemId === need.cataloguePartId);
    const supplier = suppliers.find((one) => one.id === line?.supplierId)?.name ?? "";
    const price = line ? moneyText(line.unitMinor, currency) : "";
    return [
      supplier,
      part?.maker,
      part?.series,
      part?.orderCode,
      line?.count ?? need.count,
      price,
      whyText(need, basis),
    ];
  });
  const fields = ["supplier", "maker", "series", "order code", "count", "each", "for"];
  return Papa.unparse({ fields, data }, { escapeFormulae: true });
}
