import { type BoardPosition, currentPart, foundPart } from "../board/board";
import { type Section, sectionFacts } from "../board/sections";
import { tradeConstants } from "../constants/tradeConstants";
import type { JobFacts } from "../facts/jobFacts";
import { judgeDevice } from "../judgement/judgeDevice";
import { isInCircuit, isReadOpen, overRangeCode, type Reading, tellingReadings } from "../readings/reading";
import type { TestFinding } from "./findings";
import { chipSeat, diodeSeats, filmSeat, resistorSeat, transistorSeat } from "./findingsOfPart";

const { shortOhms } = tradeConstants.board;
const { openFuseOhms, openThermistorOhms, shortedControlOhms, shortedJunctionOhms, openShuntOhms, soundShuntOhms } =
  tradeConstants.faults;
const { lostFilmRatio } = tradeConstants.faults;

/** Takes down what a test shows; null: it says nothing. */
export type Note = (finding: TestFinding, isSeen: boolean | null) => void;

/** What a part of a kind is, by where it sits, and whether its own verdict says it is bad, and how. */
export function deviceEvidence(
  facts: JobFacts,
  position: BoardPosition,
  standing: readonly Reading[],
  note: Note,
): void {
  const section = facts.nets.find((net) => net.id === position.netId)?.section;
  const judged = judgeDevice(position, facts, "found");
  const isDone = judged !== null && judged.verdict !== "not_measured";
  const isBad = judged?.verdict === "failed";
  const isGood = judged?.verdict === "sound";
  const lines = judged?.lines ?? [];
  const isOpenLine = lines.some(
    (one) => one.outcome === "bad" && one.test.code === "junction_forward" && one.reading?.coarseCode === overRangeCode,
  );
  const own = standing.filter((one) => one.targetId === position.id && !one.isPowered);
  const last = (quantity: Reading["quantity"]) => own.filter((one) => one.quantity === quantity).at(-1);
  const ohms = last("resistance");
  const isShort = (limit: number) =>
    ohms ? ohms.coarseCode !== overRangeCode && (ohms.value ?? Number.POSITIVE_INFINITY) < limit : null;
  const isOpen = (limit: number) => (ohms ? ohms.coarseCode === overRangeCode || (ohms.value ?? 0) > limit : null);
  const say = (finding: TestFinding) => note(finding, isBad ? true : isGood ? false : null);
  switch (position.kind) {
    case "fuse":
      if (isDone) say("fuse_open");
      return;
    case "varistor":
      say("varistor_reads_shorted");
      return;
    case "thermal-fuse":
      say("thermal_fuse_reads_open");
      return;
    case "relay":
      say("relay_reads_bad");
      return;
    case "film":
      film(facts, position, section, isShort(shortOhms), note);
      return;
    case "ptc":
    case "ntc":
      note("inrush_limiter_reads_open", isOpen(openThermistorOhms));
      return;
    case "bridge": {
      const forward = lines.filter((one) => one.test.code === "junction_forward" && one.reading !== null);
      const isShorted = forward.some((one) => one.outcome === "bad" && one.reading?.coarseCode !== overRangeCode);
      if (isShorted) note("bridge_reads_shorted", true);
      if (isOpenLine) note("bridge_reads_open", true);
      if (forward.length === 4) {
        note("bridge_reads_shorted", isShorted);
        note("bridge_reads_open", isOpenLine);
      }
      return;
    }
    case "diode":
    case "zener": {
      const seat = diodeSeats(position.kind, section);
      const isShorted = isBad && !isOpenLine;
      // One junction forward as it should be is neither shorted nor open.
      const isForward = lines.some((one) => one.test.code === "junction_forward" && one.outcome === "in_order");
      const isWell = isGood || (isForward && !isBad);
      if (isDone && seat.open === seat.shorted) say(seat.shorted);
      else {
        note(seat.shorted, isShorted || isShort(shortedJunctionOhms) === true ? true : isWell ? false : null);
        if (seat.open) note(seat.open, isOpenLine ? true : isWell ? false : null);
      }
      return;
    }
    case "transistor": {
      const channel = lines.find((one) => one.test.code === "channel_off");
      note(transistorSeat(section), isBad ? true : isGood || channel?.outcome === "in_order" ? false : null);
      return;
    }
    case "resistor":
      resistor(position, section, { isBad, isGood, isOpen, isShort }, note);
      return;
    case "ic": {
      if (
        section !== undefined &&
        !sectionFacts[section].isMainsSide &&
        section !== "standby" &&
        section !== "feedback"
      ) {
        note("regulator_output_wrong", isBad ? true : isGood ? false : null);
        return;
      }
      note(chipSeat(section), isShort(shortedControlOhms));
      controlSupply(facts, position, note);
      return;
    }
    case "optocoupler":
      if (isDone) say("coupler_or_reference_bad");
      return;
    case "transformer": {
      const rings = lines.find((one) => one.test.code === "winding_rings" && one.reading !== null);
      const word = rings?.reading?.coarseCode;
      if (word) note("transformer_rings_short", word === "band_bad" ? true : word === "band_good" ? false : null);
      return;
    }
    case "fan": {
      const turned = last("observation");
      if (turned) note("fan_found_stuck", turned.coarseCode === "turns_hard");
      return;
    }
    case "regulator":
      note("regulator_output_wrong", isShort(shortOhms) || regulatorIsOff(facts, position));
      return;
    default:
      return;
  }
}

/** A film or ceramic capacitor is shorted, has lost its value (read off the board against its marking), or neither. */
function film(
  facts: JobFacts,
  position: BoardPosition,
  section: Section | undefined,
  isShorted: boolean | null,
  note: Note,
): void {
  const seat = filmSeat(section);
  const part = currentPart(facts.fittedParts, position.id) ?? foundPart(facts.fittedParts, position.id);
  const farads = tellingReadings(facts.readings)
    .filter((one) => one.targetId === position.id && one.quantity === "capacitance" && !isInCircuit(one))
    .at(-1);
  const left =
    farads === undefined
      ? null
      : isReadOpen(farads)
        ? 0
        : farads.value !== null && part?.capacitanceFarads
          ? farads.value / part.capacitanceFarads
          : null;
  const isLost = left === null ? null : left < lostFilmRatio;
  const isDropper = facts.device.topology === "series_dropper" && seat === "x_capacitor_bad";
  if (isDropper) note("dropper_capacitor_low", isLost);
  else if (seat === "resonant_capacitor_bad") note(seat, isShorted || isLost ? true : (isLost ?? isShorted));
  if (seat !== "resonant_capacitor_bad" && isShorted !== null) note(seat, isShorted);
  if (!isDropper && seat === "x_capacitor_bad") note("x_capacitor_low", isLost);
}

interface Read {
  readonly isBad: boolean;
  readonly isGood: boolean;
  readonly isOpen: (limit: number) => boolean | null;
  readonly isShort: (limit: number) => boolean | null;
}

/** A resistor senses, fuses, bleeds or drives, by its marking and its place. */
function resistor(position: BoardPosition, section: Section | undefined, read: Read, note: Note): void {
  const verdict = read.isBad ? true : read.isGood ? false : null;
  switch (resistorSeat(position, section)) {
    case "fusible_reads_open":
      note("fusible_reads_open", read.isOpen(openFuseOhms));
      return;
    case "shunt_reads_open":
      // A shunt is small when sound: an open one is a finding, any other value needs its marking.
      if (read.isOpen(openShuntOhms)) note("shunt_reads_open", true);
      else if (read.isShort(soundShuntOhms)) note("shunt_reads_open", false);
      return;
    case "bleeder_reads_open":
      note("bleeder_reads_open", verdict);
      return;
    case "start_resistor_reads_open":
      note("start_resistor_reads_open", verdict);
      return;
    case "gate_parts_read_wrong":
      note("gate_parts_read_wrong", verdict);
  }
}

/** Below this a control supply counts as absent. */
const absentSupplyVolts = 3;

/** Least and most of a control chip's supply: only both together say anything. */
function controlSupply(facts: JobFacts, position: BoardPosition, note: Note): void {
  const judgement = judgeDevice(position, facts, "found");
  const live = judgement?.lines.filter((one) => one.test.isLive && one.reading?.value != null) ?? [];
  if (!judgement || live.length < 2) return;
  const most = Math.max(...live.map((one) => one.reading?.value ?? 0));
  note("control_supply_absent", most < absentSupplyVolts);
  note("control_supply_pulses", most >= absentSupplyVolts && judgement.traps.includes("pulses"));
}

/** Whether a regulator's output, least and most, is off its rail; null where nothing was read. */
function regulatorIsOff(facts: JobFacts, position: BoardPosition): boolean | null {
  const live = judgeDevice(position, facts)?.lines.filter((one) => one.test.isLive && one.reading !== null) ?? [];
  if (live.length < 2 || live.some((one) => one.outcome === "doubtful")) return null;
  return live.some((one) => one.outcome === "bad");
}
