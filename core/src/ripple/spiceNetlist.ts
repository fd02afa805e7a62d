import type { FilterNetwork } from "./filterNetwork";
import type { SourceCurrent } from "./sourceCurrent";

/** Periods that the simulation runs before it looks, and that it looks at. */
const [settlingPeriods, shownPeriods] = [400, 4];
/** A jump of the source takes this share of the period: a simulator wants finite edges. */
const edgeRatio = 1e-6;

/**
 * The filter and its source as a plain SPICE netlist, so that anyone can check it in a general-purpose simulator. The
 * source is a piecewise-linear shape that repeats (`r=0`), a volt for each ampere, the load a constant current; every node starts at 0 V, where
 * the mean of the ripple lies. Prints peak to peak at each node with `.meas`.
 *
 * @param title one line
 */
export function spiceNetlist(title: string, source: SourceCurrent, network: FilterNetwork): string {
  const T = source.periodSeconds;
  const number = (value: number) => value.toExponential(9);
  const points: [number, number][] = [];
  for (const segment of source.segments) {
    const last = points.at(-1);
    const starts = last && last[1] !== segment.startAmps ? segment.startSeconds + edgeRatio * T : segment.startSeconds;
    if (!last || last[1] !== segment.startAmps) points.push([starts, segment.startAmps]);
    points.push([segment.endSeconds, segment.endAmps]);
  }
  const closing = points.at(-1);
  const opening = points[0];
  // The period ends where it began, or the repetition itself would jump.
  if (closing && opening && closing[1] !== opening[1]) {
    closing[0] = T * (1 - edgeRatio);
    points.push([T, opening[1]]);
  }
  const lines = [`* ${title.replaceAll(/\s+/g, " ")}`];
  lines.push(`Vshape s 0 PWL(${points.map(([t, i]) => `${number(t)} ${number(i)}`).join(" ")}) r=0`);
  lines.push("Gsource 0 a s 0 1");
  const hasSecond = network.choke !== null && network.after.length > 0;
  lines.push(`Iload ${hasSecond ? "b" : "a"} 0 DC ${number(source.meanAmps)}`);
  const branch = (node: string, name: string, part: FilterNetwork["before"][number]) => {
    const esl = part.eslHenrys ?? 0;
    lines.push(`R${name} ${node} ${name}r ${number(part.esrOhms)}`);
    if (esl > 0) lines.push(`L${name} ${name}r ${name}c ${number(esl)} ic=0`);
    const inner = esl > 0 ? `${name}c` : `${name}r`;
    lines.push(`C${name} ${inner} 0 ${number(part.capacitanceFarads)} ic=0`);
    if (part.leakageOhms != null) lines.push(`Rleak${name} ${inner} 0 ${number(part.leakageOhms)}`);
  };
  for (const [n, part] of network.before.entries()) branch("a", `a${n + 1}`, part);
  if (hasSecond && network.choke) {
    lines.push(`Lchoke a m ${number(network.choke.inductanceHenrys)} ic=${number(source.meanAmps)}`);
    lines.push(`Rchoke m b ${number(Math.max(network.choke.resistanceOhms, 1e-6))}`);
    for (const [n, part] of network.after.entries()) branch("b", `b${n + 1}`, part);
  }
  const end = (settlingPeriods + shownPeriods) * T;
  const from = settlingPeriods * T;
  lines.push(`.tran ${number(T / 500)} ${number(end)} ${number(from)} ${number(T / 500)} uic`);
  for (const node of hasSecond ? ["a", "b"] : ["a"]) lines.push(`.meas tran pp_${node} PP v(${node})`);
  lines.push(".end", "");
  return lines.join("\n");
}
