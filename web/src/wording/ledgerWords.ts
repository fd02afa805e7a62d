import { type EsrSource, formatQuantity, type LedgerEntry, type Unit } from "@pale-cap/core";
import { listWords, signLabels } from "./boardWords";

const sources: Readonly<Record<EsrSource, string>> = {
  datasheet: "the part's data sheet",
  polymer_can: "polymer can size",
  polymer_default: "polymer in general (rough)",
  can_table: "can-size table",
  can_power_law: "can size by power law",
  tan_delta: "tan delta of the class (rough, factor 2)",
};

export const esrSourceWords = (source: EsrSource): string => sources[source];

/** One line of the ledger: a heading, what it says, and where the expectation comes from. */
export interface LedgerLine {
  readonly title: string;
  readonly text: string;
  readonly why: string;
}

const show = (value: number, unit: Unit) => formatQuantity(value, unit).text;

/** Words for a ledger entry. */
export function ledgerLine(entry: LedgerEntry, designator: string, neighbours: readonly string[]): LedgerLine {
  const { value, expectation, failedLimit } = entry;
  switch (entry.kind) {
    case "esr": {
      const place = entry.code === "esr_in_circuit" ? "in circuit" : "out of circuit";
      if (value === null || !expectation) return { title: "ESR", text: "not measured", why: "" };
      return {
        title: `ESR ${show(value, "Ω")}, ${place}`,
        text: `A new one reads ${show(expectation.low, "Ω")} to ${show(expectation.high, "Ω")}, typically ${show(
          expectation.typical,
          "Ω",
        )}. Failed from ${show(failedLimit ?? 0, "Ω")}.`,
        why: `Expected from ${sources[entry.source as EsrSource] ?? entry.source}; ESR = Rs·kR(T) + tan δ/(2πfC).`,
      };
    }
    case "capacitance": {
      if (value === null || !expectation) return { title: "C", text: "not measured", why: "" };
      const share = Math.round((value / expectation.typical) * 100);
      return {
        title: `C ${show(value, "F")}, ${entry.code === "capacitance_in_circuit" ? "in circuit" : "out of circuit"}`,
        text: `${share} % of the marking; 20 % tolerance is ${show(expectation.low, "F")} to ${show(
          expectation.high,
          "F",
        )}. Failed below ${show(failedLimit ?? 0, "F")}.`,
        why: "Limits of the end-of-life school in the house rules, against the marking.",
      };
    }
    case "voltage_loss":
      return {
        title: `Voltage loss ${show(value ?? 0, "%")}`,
        text: "Above 10 % speaks for leakage, below 5 % against it.",
        why: "Table of voltage loss against leakage (rough).",
      };
    case "sign":
      return entry.code === "none_seen"
        ? {
            title: "Nothing seen",
            text: "A clean look never clears a part.",
            why: "Weight is capped in the house rules.",
          }
        : {
            title: signLabels[entry.code as keyof typeof signLabels],
            text: entry.weight === null ? "Noted; has no weight of its own yet." : "Seen on this part.",
            why: "Chance of the sign on failed against sound parts (rough, to be replaced by the shop's record).",
          };
    case "bank":
      return bankLine(entry, designator, neighbours);
    case "rule":
      return ruleLine(entry.code);
    case "missing":
      return missingLine(entry.code);
  }
}

function bankLine(entry: LedgerEntry, designator: string, neighbours: readonly string[]): LedgerLine {
  const others = neighbours.length > 0 ? listWords(neighbours) : "nothing else on its net";
  const why = "Bounds over the bank: each neighbour can carry at most and at least so much of the reading.";
  if (neighbours.length === 0) {
    return {
      title: "Alone on its net",
      text: "The reading in circuit is this part's, with what hangs beside it.",
      why,
    };
  }
  switch (entry.code) {
    case "bank_condemned":
      return { title: "Condemned in circuit", text: `Even with ${others} open it would read high.`, why };
    case "bank_cleared":
      return { title: "Cleared by the bound", text: `Even with ${others} at their best it must be this good.`, why };
    case "bank_inconsistent":
      return {
        title: "Does not fit the bank",
        text: `The reading is lower than ${designator} with ${others} can be.`,
        why,
      };
    case "bank_states":
      return {
        title: "By all states of the bank",
        text: `Of everything that ${others} and it could be, ${Math.round((entry.value ?? 0) * 100)} % of what fits the reading has this one failed or open.`,
        why,
      };
    default: {
      const hidden =
        entry.value === null ? "" : ` A fault of ${multiple(entry.value)} the typical ESR could hide here.`;
      return { title: "Masked", text: `${others} could hide it: lift one lead of ${designator}.${hidden}`, why };
    }
  }
}

function multiple(value: number): string {
  return Number.isFinite(value) ? `${Number(value.toPrecision(2))} times` : "any multiple of";
}

function ruleLine(code: string): LedgerLine {
  const why = "House rules.";
  switch (code) {
    case "replace_mechanical":
      return { title: "Goes out in any case", text: "An open vent, leak or lifted base is not put back.", why };
    case "conflict":
      return { title: "Look and readings disagree", text: "It looks bad and reads well: replaced all the same.", why };
    case "c_high_unexplained":
      return {
        title: "C far above the marking",
        text: "Not believed without a voltage-loss reading: it may leak.",
        why,
      };
    case "leakage_signature":
      return {
        title: "Leaks",
        text: "C far above the marking together with voltage loss means leakage, not health.",
        why,
      };
    case "esr_low_unexplained":
      return { title: "ESR too low to be true", text: "A short or a parallel path reads low; it clears nothing.", why };
    default:
      return {
        title: "In circuit does not clear",
        text: "It reads as a sound part would. Lift one lead to clear it.",
        why: "House rule: in circuit to condemn, out to clear.",
      };
  }
}

function missingLine(code: string): LedgerLine {
  const texts: Readonly<Record<string, string>> = {
    marking_missing: "Value or voltage not entered: nothing to compare with.",
    esr_missing: "ESR not measured.",
    capacitance_missing: "C not measured out of circuit.",
  };
  return { title: "Missing", text: texts[code] ?? code, why: "" };
}

/** The weight in plain words beside its number. */
export function weightWords(weight: number | null): string {
  if (weight === null) return "";
  const size = Math.abs(weight);
  if (size < 0.3) return "hardly counts";
  const strength = size < 1.5 ? "speaks" : size < 4 ? "speaks strongly" : "speaks very strongly";
  return `${strength} ${weight > 0 ? "against it" : "for it"}`;
}
