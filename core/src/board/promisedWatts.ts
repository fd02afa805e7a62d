import type { BoardNet } from "./board";
import { sectionFacts } from "./sections";

/**
 * What the promised rails of a unit add up to, in watts. A rail counts once however many nodes it has: what hangs behind a
 * choke of another carries the same current, so the largest promise of them stands for all.
 */
export function promisedWatts(nets: readonly BoardNet[]): number {
  const byRail = new Map<string, number>();
  for (const net of nets) {
    if (sectionFacts[net.section].isMainsSide) continue;
    const watts = Math.abs(net.nominalVolts ?? 0) * (net.fullLoadAmps ?? 0);
    const rail = firstNode(net, nets).id;
    byRail.set(rail, Math.max(byRail.get(rail) ?? 0, watts));
  }
  return [...byRail.values()].reduce((sum, one) => sum + one, 0);
}

/** The node that a net is filtered from, through as many chokes as there are; a ring of nets ends where it began. */
function firstNode(net: BoardNet, nets: readonly BoardNet[], seen: readonly string[] = []): BoardNet {
  const before = nets.find((one) => one.id === net.network?.behindNetId);
  return !before || seen.includes(before.id) ? net : firstNode(before, nets, [...seen, net.id]);
}
