import { PageTabs } from "../../ui/PageTabs";

const tabs = [
  ["/parts", "Drawers"],
  ["/parts/catalogue", "Catalogue"],
  ["/parts/other", "Other parts"],
  ["/parts/orders", "Orders"],
] as const;

/** What lies in the drawers, what can be bought, and what is to be ordered. */
export function PartsScreen() {
  return <PageTabs title="Parts" tabs={tabs} />;
}
