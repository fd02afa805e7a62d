import { type DamageKind, damageKinds, type JobAct, type MendWay, mendWays } from "../facts/jobActs";
import { inOrder } from "../readings/factMoment";

/** Above this a mended joint or trace is not what it was. Usual. */
const mostMendedOhms = 0.05;

/** `open`: nothing done; `not_shown`: bridged, continuity not read; `high`: read too high; `shown`: read and in order. */
export type DamageState = "open" | "not_shown" | "high" | "shown";

export interface BoardDamage {
  readonly id: string;
  readonly positionId: string;
  readonly kind: DamageKind;
  readonly note: string | null;
  readonly photoId: string | null;
  readonly at: string;
  readonly way: MendWay | null;
  /** Wire's square metres or trace's width. */
  readonly size: number | null;
  readonly mendNote: string | null;
  readonly ohms: number | null;
  readonly state: DamageState;
}

/**
 * What the board suffered and how far it is mended, oldest first. Mending and continuity belong to the damage of their place
 * that was logged last before them.
 */
export function boardDamages(acts: readonly JobAct[]): readonly BoardDamage[] {
  const damages: BoardDamage[] = [];
  const amend = (positionId: string | null, change: (one: BoardDamage) => Partial<BoardDamage>) => {
    const at = damages.map((one) => one.positionId).lastIndexOf(positionId ?? "");
    const old = damages[at];
    if (old) damages[at] = { ...old, ...change(old) };
  };
  for (const act of inOrder(acts)) {
    const { id = "", kind, subjectId, word, note, photoId = null, at, value = null } = act;
    const damage = damageKinds.find((one) => one === word);
    if (kind === "damage" && subjectId !== null && damage) {
      // A photo that comes after belongs to what was logged before it.
      const bare = damages.filter((one) => one.positionId === subjectId).at(-1);
      if (photoId !== null && bare?.kind === damage && bare.photoId === null) {
        amend(subjectId, () => ({ photoId }));
        continue;
      }
      const nothing = { way: null, size: null, mendNote: null, ohms: null, state: "open" } as const;
      damages.push({ ...{ id, positionId: subjectId, kind: damage, note, photoId, at }, ...nothing });
    }
    const way = mendWays.find((one) => one === word);
    // Bridged anew: what was read before is of the old bridge.
    if (kind === "mended" && way) {
      amend(subjectId, () => ({ way, size: value, mendNote: note, ohms: null, state: "not_shown" }));
    }
    if (kind === "mend_read" && value !== null) {
      amend(subjectId, (old) => ({
        ohms: value,
        state: old.way === null ? "open" : value <= mostMendedOhms ? "shown" : "high",
      }));
    }
  }
  return damages;
}
