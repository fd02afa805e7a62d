import type { IntakeDetails, QuoteAnswerRow, QuoteRow } from "@pale-cap/contract";
import { consentOf, quoteTotals, type RepairVerdict, repairBalance, shopDayOf, stockDeadline } from "@pale-cap/core";
import { amountText, dayText, driftWords, majorAmount, minorAmount, moneyText } from "@pale-cap/wording";
import { memo } from "react";
import { useJob } from "../../job/JobContext";
import { QuotePanel } from "../../job/panels/quote/QuotePanel";
import { useQuoteLines } from "../../job/panels/quote/useQuoteLines";
import { useChosenCatalogue } from "../../job/useChosenCatalogue";
import { type RepairFigures, useRepairEstimate } from "../../job/useRepairEstimate";
import { Part } from "../../ui/Pane";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./intake.module.css";

interface RepairBalanceCardProps {
  readonly details: IntakeDetails;
  readonly limitMinor: number | null;
  readonly dueOn: string | null;
  readonly onChange: (details: IntakeDetails) => void;
  readonly validity: (name: string) => (isValid: boolean) => void;
}

const verdicts: Readonly<Record<RepairVerdict, string>> = {
  pays: "It pays.",
  above_limit: "Above the customer's limit: ask before going on.",
  replacement_cheaper: "Another unit is cheaper, comeback risk included.",
  nothing_to_compare: "Nothing to hold it against yet: the customer's limit, or what another unit costs.",
  not_known: "Enter the minutes to see whether it pays.",
};

/** A small calculation, offered and never asked: labour and parts against limit and replacement, and the day it is due. */
export const RepairBalanceCard = memo(function RepairBalanceCard(props: RepairBalanceCardProps) {
  const { details, limitMinor, dueOn, onChange, validity } = props;
  const { houseRules } = useJob();
  const { economics } = details;
  const currency = houseRules["shop.currency"];
  const { detail } = useJob();
  const estimate = useRepairEstimate();
  const lines = useQuoteLines();
  const consent = consentOf<QuoteRow, QuoteAnswerRow>(
    detail.quotes,
    detail.quoteAnswers,
    houseRules["shop.quoteToleranceRatio"],
  );
  // What was spent, once it is known; else what is typed, else the record.
  const spent = detail.job.handedOverAt === null ? null : detail.job.spentMinutes;
  const labourMinutes = spent ?? economics.labourMinutes ?? estimate.minutes;
  const partsMinor = economics.partsMinor ?? estimate.partsMinor;
  const balance = repairBalance({
    labourMinutes,
    labourPerHourMinor: houseRules["shop.labourPerHourMinor"],
    partsMinor,
    comebackProbability: houseRules["shop.comebackRatio"],
    replacementMinor: economics.replacementMinor,
    // What was told, else what would be: with markup and tax, as the customer pays it.
    toldMinor: quoteTotals(consent.quote?.lines ?? lines, consent.quote?.taxRatio ?? houseRules["shop.taxRatio"])
      .totalMinor,
    limitMinor: consent.allowedMinor ?? limitMinor,
  });
  const set = (more: Partial<IntakeDetails["economics"]>) =>
    onChange({ ...details, economics: { ...economics, ...more } });
  const money = (minor: number | null) => (minor === null ? null : majorAmount(minor, currency));
  const minor = (amount: number | null) => (amount === null ? null : minorAmount(amount, currency));
  return (
    <Part
      title="Does it pay?"
      aside={
        <span className={text.dim}>
          labour {moneyText(houseRules["shop.labourPerHourMinor"], currency)} an hour, by the house rule
        </span>
      }
    >
      <div className={classes.row}>
        <QuantityInput
          label="Minutes"
          unit=""
          limits={[0, 6000]}
          placeholder={String(estimate.minutes)}
          value={economics.labourMinutes}
          onChange={(minutes) => set({ labourMinutes: minutes })}
          onValidity={validity("minutes")}
        />
        <QuantityInput
          label={`Parts, ${currency}`}
          unit=""
          digits={10}
          limits={[0, 1_000_000]}
          placeholder={amountText(estimate.partsMinor, currency)}
          value={money(economics.partsMinor)}
          onChange={(amount) => set({ partsMinor: minor(amount) })}
          onValidity={validity("parts")}
        />
        <QuantityInput
          label="Another unit costs"
          unit=""
          digits={10}
          limits={[0, 1_000_000]}
          value={money(economics.replacementMinor)}
          onChange={(amount) => set({ replacementMinor: minor(amount) })}
          onValidity={validity("replacement")}
        />
      </div>
      <p className={text.dim}>
        {economics.labourMinutes === null || economics.partsMinor === null
          ? `Where nothing is typed: ${sourceWords(estimate)}.`
          : "Minutes and parts as typed."}
      </p>
      {estimate.drift && (
        <p className={text.dim}>{driftWords(estimate.drift, economics.labourMinutes ?? estimate.minutes)}</p>
      )}
      <p className={classes.balance} data-verdict={balance.verdict} role="status">
        {balance.quoteMinor !== null && balance.labourMinor !== null && (
          <>
            {moneyText(balance.labourMinor, currency)} labour and {moneyText(partsMinor, currency)} parts make{" "}
            <b>{moneyText(balance.quoteMinor, currency)}</b> before markup and tax; a comeback costs the shop{" "}
            {moneyText(balance.comebackMinor ?? 0, currency)} on average.{" "}
          </>
        )}
        <strong>{verdicts[balance.verdict]}</strong>
      </p>
      <Deadline dueOn={dueOn} />
      <QuotePanel />
    </Part>
  );
});

function sourceWords(estimate: RepairFigures): string {
  const minutes =
    estimate.source === "own_closed_jobs"
      ? `the median of ${estimate.closedCount} closed jobs of this kind`
      : `the house rule, as only ${estimate.closedCount} closed job${estimate.closedCount === 1 ? "" : "s"} of this kind told their minutes`;
  const waiting = estimate.condemnedCount - estimate.chosenCount;
  if (estimate.chosenCount === 0 && estimate.condemnedCount === 0) return minutes;
  const parts = `${estimate.chosenCount} part${estimate.chosenCount === 1 ? "" : "s"} as chosen`;
  return `${minutes}; ${parts}${waiting > 0 ? `, ${waiting} more at the usual price` : ""}`;
}

/** Whether the parts are there before the unit is due. */
function Deadline({ dueOn }: { readonly dueOn: string | null }) {
  const { detail, houseRules, nowMilliseconds } = useJob();
  const catalogue = useChosenCatalogue() ?? [];
  const wanted = detail.plans.flatMap((plan) => {
    const part = catalogue.find((one) => one.id === plan.cataloguePartId);
    return part ? [{ partId: part.id, stockCount: part.stockCount }] : [];
  });
  if (wanted.length === 0) {
    return (
      <p className={text.dim}>
        {dueOn ? `Due ${dayText(dueOn)}. ` : ""}An order takes {houseRules["shop.orderDays"]} days, by the house rule;
        what lies in the drawers is set against it once parts are chosen.
      </p>
    );
  }
  const today = shopDayOf(nowMilliseconds, houseRules["shop.timeZone"]);
  const found = stockDeadline(wanted, today, dueOn, houseRules["shop.orderDays"]);
  return (
    <p className={classes.balance} data-verdict={found.isInTime === false ? "above_limit" : undefined}>
      {found.inStockCount} of {wanted.length} chosen part{wanted.length === 1 ? "" : "s"} in the drawers
      {found.toOrderCount > 0 && `, the rest by ${dayText(found.readyOn)}`}.{" "}
      {dueOn && (
        <strong>
          Due {dayText(dueOn)}: {found.isInTime ? "in time for it." : "too late for it."}
        </strong>
      )}
    </p>
  );
}
