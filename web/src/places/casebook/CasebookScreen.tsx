import { PageTabs } from "../../ui/PageTabs";

const tabs = [
  ["/casebook", "Repairs"],
  ["/casebook/series", "Series"],
  ["/casebook/changes", "What it changes"],
  ["/casebook/quality", "How well we judge"],
] as const;

/** What the shop has learned from its own repairs. */
export function CasebookScreen() {
  return <PageTabs title="Casebook" tabs={tabs} />;
}
