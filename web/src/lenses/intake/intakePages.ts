import { useSearchParams } from "react-router";

/** The pages of intake, in the order in which a unit is taken in. */
export const intakePages = {
  counter: "Counter",
  label: "Label, purpose",
  sum: "Does it pay",
  photos: "Photos",
  opening: "Opening",
  units: "Same kind",
} as const;
export type IntakePage = keyof typeof intakePages;

/** The page stands in the address: a reload or a link leads back to it. */
export function useIntakePage(): readonly [IntakePage, (page: IntakePage) => void] {
  const [search, setSearch] = useSearchParams();
  const asked = search.get("page") ?? "";
  const page = Object.hasOwn(intakePages, asked) ? (asked as IntakePage) : "counter";
  return [page, (next) => setSearch(next === "counter" ? {} : { page: next }, { replace: true })];
}
