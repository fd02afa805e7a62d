import { type BoardDifference, type DifferentField, formatMarkedCapacitance, formatQuantity } from "@pale-cap/core";
import { directionWord } from "./boardWords";

const names: Readonly<Record<DifferentField["field"], string>> = {
  designator: "name",
  kind: "kind",
  net: "rail",
  capacitanceFarads: "C",
  ratedVolts: "rated voltage",
  temperatureClassCelsius: "temperature class",
  capacitorClass: "type",
  diameterMetres: "diameter",
  heightMetres: "height",
  stripeDegrees: "stripe",
  isNonPolar: "polarity",
  datasheetEsrOhms: "data sheet ESR",
  toleranceRatio: "tolerance",
  series: "series",
};

function valueWords(field: DifferentField["field"], value: number | string | boolean | null): string {
  if (typeof value === "boolean") return value ? "none" : "polar";
  if (typeof value !== "number") return value ?? "unknown";
  switch (field) {
    case "capacitanceFarads":
      return formatMarkedCapacitance(value);
    case "ratedVolts":
      return formatQuantity(value, "V").text;
    case "temperatureClassCelsius":
      return formatQuantity(value, "°C").text;
    case "diameterMetres":
    case "heightMetres":
      return formatQuantity(value, "mm").text;
    case "stripeDegrees":
      return directionWord(value);
    case "datasheetEsrOhms":
      return formatQuantity(value, "Ω").text;
    case "toleranceRatio":
      return formatQuantity(value, "%").text;
    default:
      return String(value);
  }
}

/** What is other on this unit than on its board type. */
export function differenceWords({ code, designator, fields }: BoardDifference): string {
  if (code === "missing_here") return `${designator} is not here`;
  if (code === "only_here") return `${designator} is only here`;
  const each = fields.map(
    ({ field, onType, here }) => `${names[field]} ${valueWords(field, here)}, on the type ${valueWords(field, onType)}`,
  );
  return `${designator}: ${each.join("; ")}`;
}
