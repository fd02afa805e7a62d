import type { IntakeDetails } from "@pale-cap/contract";
import { type RepairVerdict, repairBalance } from "@pale-cap/core";
import { useJob } from "../../job/JobContext";
import { useCatalogueQuery } from "../../job/jobApi";
import { Part } from "../../ui/Pane";
import { QuantityInput } from "../../ui/QuantityInput";
import { moneyText } from "../../ui/times";
import classes from "./intake.module.css";

interface RepairBalanceCardProps {
  readonly details: IntakeDetails;
  readonly limitMinor: number | null;
  readonly onChange: (details: IntakeDetails) => void;
  readonly validity: (name: string) => (isValid: boolean) => void;
}

const verdicts: Readonly<Record<RepairVerdict, string>> = {
  pays: "It pays.",
  above_limit: "Above the customer's limit: ask before going on.",
  replacement_cheaper: "Another unit is cheaper, comeback risk included.",
  not_known: "Enter the minutes to see whether it pays.",
};

/** A small calculation, offered and never asked: labour and parts against limit and replacement. */
export function RepairBalanceCard({ details, limitMinor, onChange, validity }: RepairBalanceCardProps) {
  const { detail, houseRules } = useJob();
  const { data: catalogue = [] } = useCatalogueQuery();
  const { economics } = details;
  const currency = houseRules["shop.currency"];
  const chosen = detail.plans.map(
    (plan) => catalogue.find((part) => part.id === plan.cataloguePartId)?.priceMinor ?? 0,
  );
  const chosenMinor = chosen.reduce((sum, price) => sum + price, 0);
  const partsMinor = economics.partsMinor ?? (chosenMinor > 0 ? chosenMinor : null);
  const balance = repairBalance({
    labourMinutes: economics.labourMinutes,
    labourPerHourMinor: houseRules["shop.labourPerHourMinor"],
    partsMinor,
    comebackProbability: houseRules["shop.comebackRatio"],
    replacementMinor: economics.replacementMinor,
    limitMinor,
  });
  const set = (more: Partial<IntakeDetails["economics"]>) =>
    onChange({ ...details, economics: { ...economics, ...more } });
  const money = (minor: number | null) => (minor === null ? null : minor / 100);
  const minor = (amount: number | null) => (amount === null ? null : Math.round(amount * 100));
  return (
    <Part
      title="Does it pay?"
      aside={
        <span className={classes.soft}>
          labour {moneyText(houseRules["shop.labourPerHourMinor"], currency)} an hour, by the house rule
        </span>
      }
    >
      <div className={classes.row}>
        <QuantityInput
          label="Minutes"
          unit=""
          limits={[0, 6000]}
          value={economics.labourMinutes}
          onChange={(labourMinutes) => set({ labourMinutes })}
          onValidity={validity("minutes")}
        />
        <QuantityInput
          label={economics.partsMinor === null && chosenMinor > 0 ? "Parts, as chosen" : "Parts"}
          unit=""
          digits={10}
          limits={[0, 1_000_000]}
          placeholder={chosenMinor > 0 ? String(chosenMinor / 100) : undefined}
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
      <p className={classes.balance} data-verdict={balance.verdict} role="status">
        {balance.quoteMinor !== null && balance.labourMinor !== null && (
          <>
            {moneyText(balance.labourMinor, currency)} labour and {moneyText(partsMinor ?? 0, currency)} parts make{" "}
            <b>{moneyText(balance.quoteMinor, currency)}</b>; a comeback costs the shop{" "}
            {moneyText(balance.comebackMinor ?? 0, currency)} on average.{" "}
          </>
        )}
        <strong>{verdicts[balance.verdict]}</strong>
      </p>
    </Part>
  );
}
