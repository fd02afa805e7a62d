import { formatQuantity, type ParseFailure, type QuantityKind, readingRanges, type Unit } from "@pale-cap/core";
import { quantityFacts } from "./boardWords";

/** What is wrong with a typed number, in a sentence that says how to go on. */
export function failureWords(failure: ParseFailure): string {
  switch (failure.code) {
    case "empty":
      return "A number is needed.";
    case "ambiguous_marks":
      return `Two decimal marks: did you mean ${failure.readings[0]} or ${failure.readings[1]}?`;
    case "comma_thousand":
      return `A thousand, or a decimal: ${failure.readings[0]} or ${failure.readings[1]}?`;
    case "prefix_not_used":
      return `Write it ${failure.unit ? `in ${failure.unit} ` : ""}without a prefix.`;
    case "not_a_quantity":
      if (failure.unit === "") return "Not understood as a number. Try 12 or 3,5.";
      return `Not understood as ${failure.unit}. Try 12, 4.7 or ${failure.unit === "F" ? "4u7" : failure.unit === "Ω" ? "0R41" : "3,3"}.`;
  }
}

/** Why a number is not what this quantity can be; undefined where it can. */
export function outsideWords(quantity: QuantityKind, value: number, unit: Unit): string | undefined {
  const { least, most } = readingRanges[quantity];
  if (value >= least && value <= most) return undefined;
  const [here, low, high] = [value, least, most].map((one) => formatQuantity(one, unit).text);
  const other = unit === "V" && value > most ? " For ohms choose Ohms first." : "";
  return `${here} cannot be ${quantityFacts[quantity].label}: it reads ${low} to ${high}. Nothing was logged.${other}`;
}
