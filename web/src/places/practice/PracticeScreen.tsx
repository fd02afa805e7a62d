import { PageTabs } from "../../ui/PageTabs";

const tabs = [
  ["/practice", "Supplies"],
  ["/practice/lessons", "Lessons"],
  ["/practice/progress", "How far I am"],
  ["/practice/lists", "To be passed"],
] as const;

/** Where a newcomer learns without a customer's supply. */
export function PracticeScreen() {
  return <PageTabs title="Practice" tabs={tabs} />;
}
