import type { Workbench } from "@pale-cap/contract";
import { useParams } from "react-router";
import { useAppSelector } from "../../app/store/hooks";
import { useWorkbenchesQuery } from "./instrumentApi";

/**
 * The benches of the shop, and the one that this page stands at: chosen once, else the first. A practice job stands at its own,
 * which is nobody else's. In a shop who works at none has none.
 */
export function usePageBench(): { readonly bench: Workbench | null; readonly benches: readonly Workbench[] } {
  const chosen = useAppSelector((state) => state.workplace.benchId);
  const isShop = useAppSelector((state) => state.workplace.isShop);
  const all = useWorkbenchesQuery().data ?? [];
  const { jobId } = useParams();
  const own = jobId === undefined ? undefined : all.find((one) => one.practiceJobId === jobId);
  const benches = all.filter((one) => one.practiceJobId === null);
  const first = isShop ? null : (benches[0] ?? null);
  return { bench: own ?? benches.find((one) => one.id === chosen) ?? first, benches };
}
