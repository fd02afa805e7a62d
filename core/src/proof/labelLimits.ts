import type { BoardNet } from "../board/board";

/** What a type plate lets all outputs give together, and some of them. */
export interface LabelLimits {
  /** Of all outputs; null: it does not say. */
  readonly watts: number | null;
  readonly groups: readonly { readonly netIds: readonly string[]; readonly watts: number }[];
}

export const noLabel: LabelLimits = { watts: null, groups: [] };

/** As much of a type plate as loads are held against. */
export interface LabelWatts {
  readonly outputWatts?: number | null | undefined;
  /** Rails as they are printed: "3.3 V + 5 V". */
  readonly combined?: readonly { readonly rails: string | null; readonly watts: number | null }[] | undefined;
}

/**
 * The limits of a plate on the rails of a board: each printed rail is found by its name, else by its volts. What names fewer than two
 * rails of this board limits nothing that a load could be put on.
 */
export function labelLimits({ outputWatts = null, combined = [] }: LabelWatts, nets: readonly BoardNet[]): LabelLimits {
  const groups = combined.flatMap(({ rails, watts }) => {
    const found = (rails ?? "").split(/[+&;,]/).map((text) => railOf(text, nets));
    const netIds = [...new Set(found.flatMap((net) => (net ? [net.id] : [])))];
    return watts === null || netIds.length < 2 ? [] : [{ netIds, watts }];
  });
  return { watts: outputWatts, groups };
}

/** The share of a set of loads at which no limit of the label is passed; 1 where none is. */
export function labelShare(wattsOf: ReadonlyMap<string, number>, label: LabelLimits): number {
  const sum = (ids: Iterable<string>) => [...ids].reduce((total, id) => total + (wattsOf.get(id) ?? 0), 0);
  const limits = [
    ...(label.watts === null ? [] : [{ watts: label.watts, drawn: sum(wattsOf.keys()) }]),
    ...label.groups.map(({ netIds, watts }) => ({ watts, drawn: sum(netIds) })),
  ];
  return limits.reduce((share, { watts, drawn }) => (drawn > watts ? Math.min(share, watts / drawn) : share), 1);
}

const bare = (text: string) => text.toLowerCase().replace(/\s+/g, "");

function railOf(text: string, nets: readonly BoardNet[]): BoardNet | undefined {
  const byName = nets.find((net) => bare(net.name) === bare(text));
  if (byName) return byName;
  const volts = Number(/-?\d+(\.\d+)?/.exec(text.replace(",", "."))?.[0] ?? Number.NaN);
  const near = nets.filter(
    (net) => net.nominalVolts !== null && Math.abs(net.nominalVolts - volts) < 0.02 * Math.abs(volts),
  );
  return near.length === 1 ? near[0] : undefined;
}
