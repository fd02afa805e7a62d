import { assumedChoke, type BoardNet, currentPart } from "../board/board";
import { sectionFacts } from "../board/sections";
import { expectedEsrOfPart } from "../capacitors/expectedEsrOfPart";
import type { JobFacts } from "../facts/jobFacts";
import { isInCircuit, standingReadings } from "../readings/reading";

/** Inductance of a radial can with its leads, where nobody knows better. Rough. */
const usualEslHenrys = 15e-9;
/** Both sides share no copper: a simulator wants one ground all the same. */
const isolationOhms = 1e9;
const [esrHertz, roomCelsius] = [100e3, 20] as const;

/**
 * A board's rails as a netlist for a general-purpose circuit simulator: each capacitor as R, L and C in series, chokes between the
 * nodes of a filter, each promise as a resistor. What was read out of circuit stands for a part's ESR, else what a new one should
 * have; each line's source is said in a comment. Ground of the outputs is node 0, that of the mains side is `hot`.
 *
 * Rough: it holds what is known of the board and nothing of its converter.
 */
export function railNetlist(
  { nets, positions, fittedParts, readings }: Pick<JobFacts, "nets" | "positions" | "fittedParts" | "readings">,
  title: string,
): string {
  const taken = new Set(["0", "hot"]);
  const nodes = new Map(nets.map((net) => [net.id, unique(taken, plain(net.name) || "node")]));
  const node = (netId: string | null) => (netId === null ? null : (nodes.get(netId) ?? null));
  const ground = (net: BoardNet | undefined) => (net && sectionFacts[net.section].isMainsSide ? "hot" : "0");
  const names = new Set<string>();
  const read = standingReadings(readings);
  const capacitors = positions.flatMap((position): readonly string[] => {
    const part = currentPart(fittedParts, position.id);
    const at = node(position.netId);
    if (position.kind !== "electrolytic" || !part || part.capacitanceFarads === null || at === null) return [];
    const own = read
      .filter(
        (one) => one.fittedPartId === part.id && one.quantity === "esr" && one.value !== null && !isInCircuit(one),
      )
      .at(-1);
    const expected = expectedEsrOfPart(part, esrHertz, roomCelsius);
    const ohms = own?.value ?? expected?.typicalOhms ?? null;
    const name = unique(names, plain(position.designator) || "C");
    const source = own ? "read out of circuit" : expected ? "expected of a new one" : "not known, left out";
    const net = nets.find((one) => one.id === position.netId);
    return [
      `* ${position.designator}: ESR ${source}; ESL assumed`,
      `C_${name} ${at} ${name}_a ${number(part.capacitanceFarads)}`,
      `R_${name} ${name}_a ${name}_b ${number(ohms ?? 1e-6)}`,
      `L_${name} ${name}_b ${ground(net)} ${number(usualEslHenrys)}`,
    ];
  });
  const chokes = nets.flatMap((net): readonly string[] => {
    const [from, to] = [node(net.network?.behindNetId ?? null), node(net.id)];
    if (from === null || to === null) return [];
    const { chokeHenrys, chokeOhms } = net.network ?? { chokeHenrys: null, chokeOhms: null };
    return [
      `* choke from ${from} to ${to}${chokeHenrys === null ? ", assumed" : ""}`,
      `L_choke_${to} ${from} ${to}_x ${number(chokeHenrys ?? assumedChoke.henrys)}`,
      `R_choke_${to} ${to}_x ${to} ${number(chokeOhms ?? assumedChoke.ohms)}`,
    ];
  });
  const loads = nets.flatMap((net): readonly string[] => {
    const at = node(net.id);
    if (at === null || !net.nominalVolts || !net.fullLoadAmps) return [];
    return [`R_load_${at} ${at} ${ground(net)} ${number(Math.abs(net.nominalVolts) / net.fullLoadAmps)}`];
  });
  const hasHot = nets.some((net) => sectionFacts[net.section].isMainsSide);
  const isolation = hasHot ? [`R_isolation hot 0 ${number(isolationOhms)}`] : [];
  return [`* ${title.replace(/[\r\n]+/g, " ")}`, ...capacitors, ...chokes, ...loads, ...isolation, ".end", ""].join(
    "\n",
  );
}

/** Plain decimal with an exponent: no suffix that one simulator reads as mega and another as milli. */
const number = (value: number): string => value.toExponential(6).replace(/\.?0+e/, "e");

const plain = (name: string): string =>
  name
    .replace(/-(?=\d)/g, "m")
    .replace(/[^A-Za-z0-9]+/g, "_")
    .replace(/^_+|_+$/g, "");

function unique(taken: Set<string>, name: string): string {
  for (let n = 1; ; n++) {
    const found = n === 1 ? name : `${name}_${n}`;
    if (taken.has(found.toLowerCase())) continue;
    taken.add(found.toLowerCase());
    return found;
  }
}
