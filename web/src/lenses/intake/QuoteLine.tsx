import { Button, SegmentedControl } from "@mantine/core";
import type { IntakeDetails, QuoteAnswer } from "@pale-cap/contract";
import { dayText, majorAmount, minorAmount, moneyText } from "@pale-cap/wording";
import { pageClock } from "../../api/clock";
import { useJob } from "../../job/JobContext";
import { QuantityInput } from "../../ui/QuantityInput";
import classes from "./intake.module.css";

interface QuoteLineProps {
  readonly quote: IntakeDetails["quote"];
  readonly quoteMinor: number | null;
  readonly limitMinor: number | null;
  readonly onChange: (more: Partial<IntakeDetails["quote"]>) => void;
  readonly onLimit: (limitMinor: number | null) => void;
  readonly validity: (name: string) => (isValid: boolean) => void;
}

/** What the customer was told, and what the customer said: yes, no, or up to a limit. */
export function QuoteLine({ quote, quoteMinor, limitMinor, onChange, onLimit, validity }: QuoteLineProps) {
  const { houseRules } = useJob();
  const currency = houseRules["shop.currency"];
  const hasMoved = quote.quotedMinor !== null && quoteMinor !== null && quoteMinor > quote.quotedMinor;
  return (
    <div className={classes.quote}>
      <Button
        size="xs"
        disabled={quoteMinor === null || quoteMinor === quote.quotedMinor}
        onClick={() => onChange({ quotedMinor: quoteMinor, quotedAt: pageClock.moment(), answer: null })}
      >
        {quoteMinor === null ? "Quote" : `Quote ${moneyText(quoteMinor, currency)}`}
      </Button>
      {quote.quotedMinor !== null && (
        <>
          <span>
            Quoted <b>{moneyText(quote.quotedMinor, currency)}</b>
            {quote.quotedAt && ` on ${dayText(quote.quotedAt)}`}. The customer said
          </span>
          <SegmentedControl
            aria-label="The customer said"
            data={[
              { value: "", label: "nothing yet" },
              { value: "yes", label: "yes" },
              { value: "no", label: "no" },
              { value: "limit", label: "up to" },
            ]}
            value={quote.answer ?? ""}
            onChange={(value) => onChange({ answer: (value || null) as QuoteAnswer | null })}
          />
          {quote.answer === "limit" && (
            <QuantityInput
              label="Limit the customer set"
              isLabelHidden
              size="xs"
              unit=""
              digits={10}
              limits={[0, 1_000_000]}
              placeholder={currency}
              value={limitMinor === null ? null : majorAmount(limitMinor, currency)}
              onChange={(amount) => onLimit(amount === null ? null : minorAmount(amount, currency))}
              onValidity={validity("quoteLimit")}
            />
          )}
          {hasMoved && quote.answer !== null && (
            <strong className={classes.moved}>The sum has grown since: ask again.</strong>
          )}
        </>
      )}
    </div>
  );
}
