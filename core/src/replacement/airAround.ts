import type { BoardNet, BoardPosition, FittedPart } from "../board/board";
import { expectedEsrOfPart } from "../capacitors/expectedEsrOfPart";
import { tradeConstants } from "../constants/tradeConstants";
import { judgeDevice } from "../judgement/judgeDevice";
import { impliedAmbientCelsius } from "../life/impliedAmbient";
import type { MissionProfile, Purpose } from "../life/missionProfile";
import { groupReadings } from "../readings/groupReadings";
import { tellingReadings } from "../readings/reading";
import type { Limit } from "./limit";
import type { Surroundings } from "./surroundings";

const { soundAboveRatio, soundBelowEsrRatio } = tradeConstants.replacement;
const { assumedLifeHours, driedBelowRatio, driedFromEsrRatio, assumedAmbientCelsius, assumedClassCelsius } =
  tradeConstants.replacement;

/**
 * The air around a part, by everything that says anything of it; the one that counts first. A spot temperature under power counts
 * before all; of the promised use and of what the old part's death implies the warmer does; else it is assumed.
 */
export function airAround(place: {
  readonly position: BoardPosition;
  readonly part: FittedPart;
  readonly net: BoardNet | null;
  readonly mission: MissionProfile | null;
  readonly purpose: Purpose | null;
  readonly around: Surroundings | null;
}): readonly Limit[] {
  const { mission, around } = place;
  const spot = around && spotCelsius(place.position, around);
  const promised: Limit[] = mission ? [{ value: mission.partAmbientCelsius, source: "purpose" }] : [];
  const implied = impliedBy(place);
  const bound = implied ? null : livedBelow(place);
  const kept = bound ? promised.map((one) => (one.value > bound.value ? bound : one)) : promised;
  const reckoned = [...kept, ...(implied ? [implied] : [])].sort((a, b) => b.value - a.value);
  const all: Limit[] = [...(spot === null ? [] : [{ value: spot, source: "spot" } as const]), ...reckoned];
  return all.length > 0 ? all : [{ value: assumedAmbientCelsius, source: "assumed" }];
}

/** The last temperature that was read at this place under power. */
function spotCelsius(position: BoardPosition, { facts }: Surroundings): number | null {
  const own = tellingReadings(facts.readings).filter(
    (one) => one.targetId === position.id && one.quantity === "temperature" && one.isPowered && one.value !== null,
  );
  return own.at(-1)?.value ?? null;
}

/**
 * What the death of the part that was found implies, only where it can be believed: it dried (C down and ESR up, off the board),
 * the rectifiers of its rail read sound, its class and its hours are told. A bulk, or a part that leaks, tells nothing.
 */
function impliedBy({
  part,
  net,
  purpose,
  around,
}: {
  readonly part: FittedPart;
  readonly net: BoardNet | null;
  readonly purpose: Purpose | null;
  readonly around: Surroundings | null;
}): Limit | null {
  const years = around?.facts.device.ageYears ?? null;
  const hoursPerDay = purpose?.hoursPerDay ?? null;
  if (!around || !net || !years || !hoursPerDay || part.origin !== "found" || !hasDried(part, around)) return null;
  const diodes = around.facts.positions.filter((one) => one.kind === "diode" && one.netId === net.id);
  const areSound = diodes.length > 0 && diodes.every((one) => judgeDevice(one, around.facts)?.verdict === "sound");
  if (!areSound) return null;
  const { celsius, highCelsius } = impliedAmbientCelsius({
    ratedLifeHours: assumedLifeHours[part.capacitorClass ?? "lowz"],
    ratedTemperatureCelsius: part.temperatureClassCelsius ?? assumedClassCelsius,
    ...{ years, hoursPerDay },
  });
  return { value: celsius, source: "predecessor", band: [celsius, highCelsius] };
}

/** A part that reads as new after its years cannot have stood hotter than would have worn it out: a bound from the other side. */
function livedBelow({
  part,
  purpose,
  around,
}: Pick<Parameters<typeof airAround>[0], "part" | "purpose" | "around">): Limit | null {
  const years = around?.facts.device.ageYears ?? null;
  const hoursPerDay = purpose?.hoursPerDay ?? null;
  if (!around || !years || !hoursPerDay || part.origin !== "found") return null;
  const { farads, esr, fresh } = offBoard(part, around);
  if (!farads || !esr || !fresh || part.capacitanceFarads === null) return null;
  const isAsNew =
    farads.value > soundAboveRatio * part.capacitanceFarads && esr.value < soundBelowEsrRatio * fresh.typicalOhms;
  if (!isAsNew) return null;
  const { celsius } = impliedAmbientCelsius({
    ratedLifeHours: assumedLifeHours[part.capacitorClass ?? "lowz"],
    ratedTemperatureCelsius: part.temperatureClassCelsius ?? assumedClassCelsius,
    ...{ years, hoursPerDay },
  });
  return { value: celsius, source: "survivor" };
}

/** ESR and C of a part as read off the board, and what a new one would have read. */
function offBoard(part: FittedPart, { facts }: Surroundings) {
  const own = tellingReadings(facts.readings).filter((one) => one.fittedPartId === part.id);
  const farads = groupReadings(own, "capacitance").find((one) => !one.isInCircuit);
  const esr = groupReadings(own, "esr").find((one) => !one.isInCircuit);
  return { farads, esr, fresh: esr && expectedEsrOfPart(part, esr.frequencyHertz, esr.temperatureCelsius) };
}

function hasDried(part: FittedPart, around: Surroundings): boolean {
  const { farads, esr, fresh } = offBoard(part, around);
  if (!farads || !esr || !fresh || part.capacitanceFarads === null) return false;
  return farads.value < driedBelowRatio * part.capacitanceFarads && esr.value > driedFromEsrRatio * fresh.typicalOhms;
}
