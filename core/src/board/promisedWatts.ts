import type { BoardNet } from "./board";
import { isRegulator, sectionFacts } from "./sections";

/**
 * What the promised rails of a unit add up to, in watts. A rail counts once however many nodes it has: what hangs behind a
 * choke of another carries the same current, so the largest promise of them stands for all. A rail that another one feeds
 * counts within that one: what a supply promises at 12 V includes what its regulators take from there. Where the feeding
 * rail promises less than those it feeds, they count. A regulator's rail of which nobody said what feeds it is taken to be
 * fed from the rail with the largest promise.
 */
export function promisedWatts(nets: readonly BoardNet[]): number {
  const byRail = new Map<string, number>();
  for (const net of nets) {
    if (sectionFacts[net.section].isMainsSide) continue;
    const watts = Math.abs(net.nominalVolts ?? 0) * (net.fullLoadAmps ?? 0);
    const rail = firstNode(net, nets).id;
    byRail.set(rail, Math.max(byRail.get(rail) ?? 0, watts));
  }
  const isRegulated = (id: string) => isRegulator(nets.find((one) => one.id === id)?.section);
  const [strongest = null] =
    [...byRail].filter(([id, watts]) => watts > 0 && !isRegulated(id)).sort((a, b) => b[1] - a[1])[0] ?? [];
  const fed = new Map<string, number>();
  const roots = new Map<string, number>();
  for (const [id, watts] of byRail) {
    const feed = feedOf(id, nets) ?? (isRegulated(id) ? strongest : null);
    const into = feed === null ? roots : fed;
    into.set(feed ?? id, (into.get(feed ?? id) ?? 0) + watts);
  }
  for (const [id, watts] of fed) roots.set(id, Math.max(roots.get(id) ?? 0, watts));
  return [...roots.values()].reduce((sum, one) => sum + one, 0);
}

/** The first node of the rail that a rail draws from, through all regulators; null where it comes off a transformer, or nobody said. */
function feedOf(id: string, nets: readonly BoardNet[]): string | null {
  const seen = [id];
  for (;;) {
    const net = nets.find((one) => one.id === seen.at(-1));
    const feed = nets.find((one) => one.id === net?.converter?.fedFromNetId);
    const first = feed && firstNode(feed, nets).id;
    if (!first || seen.includes(first)) break;
    seen.push(first);
  }
  return seen.length > 1 ? (seen.at(-1) ?? null) : null;
}

/** The node that a net is filtered from, through as many chokes as there are; a ring of nets ends where it began. */
function firstNode(net: BoardNet, nets: readonly BoardNet[], seen: readonly string[] = []): BoardNet {
  const before = nets.find((one) => one.id === net.network?.behindNetId);
  return !before || seen.includes(before.id) ? net : firstNode(before, nets, [...seen, net.id]);
}
