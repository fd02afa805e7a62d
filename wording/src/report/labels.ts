import type { HouseRuleValues, StockItemDetail } from "@pale-cap/contract";
import { formatMarkedCapacitance } from "@pale-cap/core";
import { chargeWords } from "../chargeWords";
import { deviceName } from "../deviceName";
import { notRepairedTag } from "../handOverWords";
import { openPointWords } from "../lensWords";
import { fittedNow } from "./partWords";
import { jobNumberText, type ReportModel, shopDay, shopMoment } from "./reportModel";

/** What stands on a label: a name that is read across the bench, lines below it, and what its code holds. */
export interface Label {
  readonly title: string;
  readonly lines: readonly string[];
  /** null: it has none. */
  readonly code: string | null;
  /** Something that can hurt: it looks like nothing else in the shop. */
  readonly isWarning: boolean;
}

/** The house's address with a number or a drawer in it, else that alone. */
export function labelCode(houseRules: HouseRuleValues, what: string): string {
  const address = houseRules["shop.address"];
  return address === "" ? what : address.replaceAll("{number}", encodeURIComponent(what));
}

/** On the unit: which job, what it is, what was changed, and how far the promise reaches. */
export function unitLabel(model: ReportModel): Label {
  const { detail, houseRules } = model;
  const { job } = detail;
  const { labelPlate } = job.intakeDetails;
  const outputs = (labelPlate?.rails ?? []).flatMap(({ volts, amps }) =>
    volts === null ? [] : [`${volts} V${amps === null ? "" : ` ${amps} A`}`],
  );
  const names = fittedNow(model).map((one) => one.designator);
  const number = jobNumberText(job.number);
  return {
    title: number,
    lines: [
      job.realm === "practice" ? "Practice: nobody's unit" : "",
      deviceName(job),
      job.handedOverAt ? `Out ${shopDay(model, job.handedOverAt)}` : `In ${shopDay(model, job.createdAt)}`,
      job.warrantyUntil ? `Warranty until ${shopDay(model, job.warrantyUntil)}` : "",
      outputs.slice(0, 3).join(", "),
      names.length === 0
        ? ""
        : `Replaced ${names.slice(0, 8).join(" ")}${names.length > 8 ? ` and ${names.length - 8} more` : ""}`,
      houseRules["shop.name"],
    ].filter((one) => one !== ""),
    code: labelCode(houseRules, number),
    isWarning: false,
  };
}

/** On a bag with what came out of a unit. */
export function bagLabel({ detail, houseRules, ...model }: ReportModel, words: string | null): Label {
  const { job } = detail;
  const number = jobNumberText(job.number);
  const day = shopDay({ houseRules }, new Date(model.nowMilliseconds).toISOString());
  return {
    title: `Bag of ${number}`,
    lines: [words ?? "Parts of the unit", deviceName(job), day],
    code: labelCode(houseRules, number),
    isWarning: false,
  };
}

/** On a drawer: what lies in it. */
export function drawerLabel(item: StockItemDetail, houseRules: HouseRuleValues): Label {
  const { marking, drawer } = item;
  const name = drawer ?? "No drawer";
  const millimetres = (metres: number | null) => (metres === null ? "?" : Number((metres * 1e3).toFixed(1)));
  return {
    title: name,
    lines: [
      [
        marking.capacitanceFarads === null ? "" : formatMarkedCapacitance(marking.capacitanceFarads),
        marking.ratedVolts === null ? "" : `${marking.ratedVolts} V`,
        marking.temperatureClassCelsius === null ? "" : `${marking.temperatureClassCelsius} °C`,
      ]
        .filter(Boolean)
        .join(" "),
      [marking.maker, marking.series, marking.orderCode].filter(Boolean).join(" ") || "own marking",
      `${millimetres(marking.diameterMetres)} × ${millimetres(marking.heightMetres)} mm`,
      [item.lot ? `lot ${item.lot}` : "", item.dateCode ?? ""].filter(Boolean).join(", "),
    ].filter((one) => one !== ""),
    code: drawer === null ? null : labelCode(houseRules, drawer),
    isWarning: false,
  };
}

/**
 * Tags for what can hurt by what was logged: one each for stored charge, an open earth and a unit that goes back unrepaired. None where
 * nothing was logged against it: a missing tag says nothing.
 */
export function warningTags(model: ReportModel): readonly Label[] {
  const { detail, charge, facts, nowMilliseconds, points, outcome } = model;
  const number = jobNumberText(detail.job.number);
  const tag = (title: string, lines: readonly string[]): Label => ({
    title,
    lines: [...lines, `Job ${number}, ${shopMoment(model, new Date(nowMilliseconds).toISOString())}`],
    code: null,
    isWarning: true,
  });
  const words = chargeWords({ ...charge, at: null }, facts.energyStores, nowMilliseconds);
  const earth = points.filter((one) => one.code === "earth_screws_missing" || one.code === "earth_bond_high");
  return [
    ...(charge.name === "verified"
      ? []
      : [
          tag(charge.name === "charged" ? "Bulk charged" : "Charge not verified", [
            `${words}.`,
            "Hands off. Volts at its pins, drain, wait, volts again.",
          ]),
        ]),
    ...(earth.length > 0 ? [tag("No earth yet", [...earth.map(openPointWords), "Not to be plugged in."])] : []),
    ...(outcome === "not_repaired" ? [tag("Not repaired", [notRepairedTag])] : []),
  ];
}
