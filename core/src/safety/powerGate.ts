import type { PowerEvent } from "../facts/powerEvents";
import { inOrder } from "../readings/factMoment";

export type GateCause = "told_at_intake" | "fuse_blown" | "breaker_tripped" | "short_found";

export interface PowerGate {
  readonly isShut: boolean;
  /** What shut it, also where it was opened again since; null where nothing ever did. */
  readonly cause: GateCause | null;
  readonly openedBy: PowerEvent | null;
}

/** Symptoms that tell of a blown fuse or a tripped breaker. */
const shuttingSymptoms = ["fuse_blown"];

/**
 * Whether power-up steps may be offered. A blown fuse or a tripped breaker, told at intake or logged later, shuts the
 * gate; a short test without a short opens it, one with a short keeps it shut; a person may overrule it with a reason.
 * The event that was stored last decides.
 */
export function powerGate(symptoms: readonly string[], events: readonly PowerEvent[]): PowerGate {
  const told = symptoms.some((code) => shuttingSymptoms.includes(code));
  const start: PowerGate = { isShut: told, cause: told ? "told_at_intake" : null, openedBy: null };
  return inOrder(events).reduce(afterEvent, start);
}

function afterEvent(gate: PowerGate, event: PowerEvent): PowerGate {
  switch (event.kind) {
    case "fuse_blown":
    case "breaker_tripped":
      return { isShut: true, cause: event.kind, openedBy: null };
    case "short_test":
      if (event.hasShort) return { isShut: true, cause: "short_found", openedBy: null };
      return { ...gate, isShut: false, openedBy: gate.cause ? event : null };
    case "gate_overruled":
      return gate.isShut ? { ...gate, isShut: false, openedBy: event } : gate;
  }
}
