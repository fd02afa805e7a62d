import { type EntryQuestion, type EsrSource, formatQuantity, type LedgerEntry, type Unit } from "@pale-cap/core";
import { listWords, signLabels } from "./boardWords";
import { classLabels } from "./entryWords";
import { coarseLabels } from "./probeWords";
import { chanceWords } from "./verdictWords";

const sources: Readonly<Record<EsrSource, string>> = {
  datasheet: "the part's data sheet",
  polymer_can: "polymer can size",
  polymer_default: "polymer in general (rough)",
  can_table: "can-size table",
  can_power_law: "can size by power law",
  tan_delta: "tan delta of the class (rough, factor 2)",
};

export const esrSourceWords = (source: EsrSource): string => sources[source];

/** One line of the ledger: a heading, what it says, and where the expectation comes from. */
export interface LedgerLine {
  readonly title: string;
  readonly text: string;
  readonly why: string;
}

const show = (value: number, unit: Unit) => formatQuantity(value, unit).text;

/** Words for a ledger entry. */
export function ledgerLine(
  entry: LedgerEntry,
  designator: string,
  neighbours: readonly string[],
  liftName = designator,
): LedgerLine {
  const { value, expectation, failedLimit } = entry;
  switch (entry.kind) {
    case "esr": {
      const told = boardLine(entry);
      if (told) return told;
      const place = entry.code === "esr_in_circuit" ? "in circuit" : "out of circuit";
      if (value === null || !expectation) return { title: "ESR", text: "not measured", why: "" };
      return {
        title: `ESR ${show(value, "Ω")}, ${place}`,
        text: `A new one reads ${show(expectation.low, "Ω")} to ${show(expectation.high, "Ω")}, typically ${show(
          expectation.typical,
          "Ω",
        )}. Failed from ${show(failedLimit ?? 0, "Ω")}.`,
        why: `Expected from ${sources[entry.source as EsrSource] ?? entry.source}; ESR = Rs·kR(T) + tan δ/(2πfC).`,
      };
    }
    case "capacitance": {
      if (value === null || !expectation) return { title: "C", text: "not measured", why: "" };
      const share = Math.round((value / expectation.typical) * 100);
      return {
        title: `C ${show(value, "F")}, ${entry.code === "capacitance_in_circuit" ? "in circuit" : "out of circuit"}`,
        text: `${share} % of the marking; 20 % tolerance is ${show(expectation.low, "F")} to ${show(
          expectation.high,
          "F",
        )}. Failed below ${show(failedLimit ?? 0, "F")}.`,
        why: "Limits of the end-of-life school in the house rules, against the marking.",
      };
    }
    case "voltage_loss":
      return {
        title: `Voltage loss ${show(value ?? 0, "%")}`,
        text: "Above 10 % speaks for leakage, below 5 % against it.",
        why: "Table of voltage loss against leakage (rough).",
      };
    case "sign":
      return entry.code === "none_seen"
        ? {
            title: "Nothing seen",
            text: "A clean look never clears a part.",
            why: "Weight is capped in the house rules.",
          }
        : {
            title: signLabels[entry.code as keyof typeof signLabels],
            text: entry.weight === null ? "Noted; has no weight of its own yet." : "Seen on this part.",
            why: "Chance of the sign on failed against sound parts (rough, to be replaced by the shop's record).",
          };
    case "bank":
      return bankLine(entry, designator, neighbours, liftName);
    case "leakage":
      return {
        title:
          entry.code === "short_resistance"
            ? "A short"
            : `Leaks ${(value ?? 0) < 10 ? (value ?? 0).toFixed(1) : Math.round(value ?? 0)} × its limit`,
        text:
          entry.code === "short_resistance"
            ? "Under an ohm across it with its lead up: what it reads as ESR and C means nothing then."
            : entry.code === "leakage_current"
              ? "The current against what a data sheet allows."
              : "What the ohmmeter says out of circuit, as a current at rated voltage, against what a data sheet allows.",
        why: "Limit: 0.01 × C × V, 3 µA at least, after re-forming at 20 °C (usual).",
      };
    case "tester":
      return {
        title: `Tester shows “${coarseLabels[entry.code as keyof typeof coarseLabels] ?? entry.code}”`,
        text: "A band is weighed as a band; no ohms are made of it.",
        why: "Chance of the band on failed against sound parts, by how the part was connected (rough). Beside numbers it counts less.",
      };
    case "touch":
      return {
        title:
          value === null
            ? `Felt ${coarseLabels[entry.code as keyof typeof coarseLabels] ?? entry.code}`
            : `Can at ${show(value, "°C")}`,
        text:
          entry.code === "temperature_without_air"
            ? "Hot, but nobody told the air beside it: with the air's temperature in the probe settings it would say more."
            : "A part that heats itself carries more ripple than it stands, or is being heated.",
        why: "Chance of a hot can on failed against sound parts (rough); above 60 °C and 25 K over the air counts as hot.",
      };
    case "baseline":
      return baselineLine(entry);
    case "record":
      return entry.code === "record_neutral"
        ? {
            title: "Record",
            text: "Too little yet of this place and of its series: it counts for nothing.",
            why: "The prior stays at the default, one in five.",
          }
        : {
            title: "Record",
            text: recordText(entry),
            why: "The prior is the posterior mean of the default and the shop's count. Units come because they failed: absent ones are not counted.",
          };
    case "rule":
      return ruleLine(entry.code, value);
    case "missing":
      return missingLine(entry.code);
  }
}

/** What the readings of a whole board say of this part: its leads, its series, an open reading. */
function boardLine({ code, value }: LedgerEntry): LedgerLine | null {
  switch (code) {
    case "open_out_of_circuit":
      return {
        title: "Reads open",
        text: "With its lead up it shows nothing: open inside, or the probes did not touch.",
        why: "It condemns once the same probes have read a short or another part; a sound part never reads open.",
      };
    case "open_in_circuit":
      return {
        title: "Its net reads open",
        text: "Neither it nor anything beside it shows up: open parts, or probes that did not touch.",
        why: "One lead up and the same probes on a known part settle which.",
      };
    case "leads_likely":
      return {
        title: `All readings carry about ${show(value ?? 0, "Ω")}`,
        text: "The leads seem not to be zeroed. Hold the tips together and read: that is taken off everything.",
        why: "Leads add the same to every ESR of a board, so the least of them lie too high together.",
      };
    case "leads_measured":
      return {
        title: `${show(value ?? 0, "Ω")} of leads taken off`,
        text: "Read with the tips together, and taken off every ESR of this job.",
        why: "What the leads add is in each reading as it was typed; the readings themselves stay as they are.",
      };
    case "series_higher":
    case "series_lower":
      return {
        title: `Its series reads ${multiple(value ?? 1)} what the marking lets expect`,
        text: "All parts of its bank read so: class or size may be another than entered, or the make is.",
        why: "One factor for all parts of a bank, inferred from what they read together.",
      };
    default:
      return null;
  }
}

function baselineLine({ value, expectation, source }: LedgerEntry): LedgerLine {
  const [kind, count] = source.split(":");
  const units = count === "1" ? "one unit" : `${count} units`;
  if (kind === "brothers") {
    return {
      title: "Apart from its brothers",
      text: expectation
        ? `${count} other units of the family read ${show(expectation.typical, "Ω")} here in the middle; this one ${show(value ?? 0, "Ω")}.`
        : "",
      why: "Parts of one batch and age wear alike; one that reads far above the others has a reason. Half of what a known-good unit weighs, and it never clears a part.",
    };
  }
  const who = kind === "known_good" ? `A known-good board (${units})` : `Sound parts of this board type (${units})`;
  return {
    title: "Against a good board",
    text: expectation
      ? `${who} read ${show(expectation.typical, "Ω")} here, in the same state; this one ${show(value ?? 0, "Ω")}.`
      : "",
    why: "Ratio of the two readings, by a table (rough); a history weighs half of a known-good unit.",
  };
}

function bankLine(entry: LedgerEntry, designator: string, neighbours: readonly string[], liftName: string): LedgerLine {
  const others = neighbours.length > 0 ? listWords(neighbours) : "nothing else on its net";
  const why = "Bounds over the bank: each neighbour can carry at most and at least so much of the reading.";
  if (neighbours.length === 0) {
    return {
      title: "Alone on its net",
      text: "The reading in circuit is this part's, with what hangs beside it.",
      why,
    };
  }
  switch (entry.code) {
    case "bank_condemned":
      return { title: "Condemned in circuit", text: `Even with ${others} open it would read high.`, why };
    case "bank_cleared":
      return {
        title: "The bound speaks for it",
        text: `Even with ${others} at ${neighbours.length === 1 ? "its" : "their"} best it must be this good.`,
        why,
      };
    case "bank_inconsistent":
      return {
        title: "Does not fit the bank",
        text: `The reading is lower than ${designator} with ${others} can be.`,
        why,
      };
    case "bank_states":
      return {
        title: "By all states of the bank",
        text: `Of everything that ${others} and it could be, ${chanceWords(entry.value ?? 0)} of what fits the reading has this one failed or open.`,
        why,
      };
    case "bank_lift":
      return {
        title: "Which lead to lift",
        text: `Of this bank, one lead of ${liftName} tells most.`,
        why: "A lifted lead settles one part; most is learnt where its chance lies nearest to even.",
      };
    case "bank_known":
      return {
        title: "Neighbours that are known",
        text: "Those of its bank that were read with a lead up are reckoned with as they are.",
        why: "Their conductance is taken off the bank's reading; only the others can still hide something.",
      };
    case "bank_series":
      return {
        title: "In series with its neighbours",
        text: "Each stands between two nodes of its own: nothing parallel hides it, and both have to hold their share of the volts.",
        why: "Entered with the rail: capacitors in series.",
      };
    case "bank_choke":
      return {
        title: "A second bank across the choke",
        text: `Reckoned with through ${show(entry.value ?? 0, "H")}: the lower the tester's frequency, the more of it is read here.`,
        why: "Impedance of the choke in series with the bank behind it; an inductance that nobody knows is assumed.",
      };
    case "bank_parallel":
      return {
        title: `${show(entry.value ?? 0, "Ω")} lie parallel`,
        text: "Measured cold on this rail and taken off the reading.",
        why: "Conductance of what hangs beside the bank, subtracted from the reading's.",
      };
    default: {
      const hidden =
        entry.value === null || !Number.isFinite(entry.value)
          ? ""
          : ` A fault of ${show(entry.value, "Ω")} or more${
              entry.expectation ? ` (${multiple(entry.value / entry.expectation.typical)} the typical ESR)` : ""
            } could hide here.`;
      return { title: "Masked", text: `${others} could hide it.${hidden}`, why };
    }
  }
}

function multiple(value: number): string {
  return Number.isFinite(value) ? `${Number(value.toPrecision(2))} times` : "any multiple of";
}

function ruleLine(code: string, value: number | null): LedgerLine {
  const why = "House rules.";
  switch (code) {
    case "replace_mechanical":
      return {
        title: "Goes out in any case",
        text: "With what was seen on it, a dome, a vent, a leak or a lifted base, it is not put back.",
        why,
      };
    case "conflict":
      return { title: "Look and readings disagree", text: "It looks bad and reads well: replaced all the same.", why };
    case "c_high_unexplained":
      return {
        title: "C far above the marking",
        text: "Not believed without a voltage-loss reading: it may leak.",
        why,
      };
    case "leakage_signature":
      return {
        title: "Leaks",
        text: "C far above the marking together with voltage loss means leakage, not health.",
        why,
      };
    case "esr_interpolated":
      return {
        title: "Between two rows",
        text: "The expected ESR lies between rows of the table.",
        why: "Can size or voltage is not a row of its own; interpolated, band unchanged.",
      };
    case "esr_extrapolated":
      return {
        title: "Beyond the table",
        text: "The expected ESR lies beyond the rows or the range of the model: its band is half as wide again each way.",
        why: "Extrapolated: voltage, can size, frequency or temperature is outside what the tables hold.",
      };
    case "esr_compensated":
      return {
        title: "Leads and reactance taken off",
        text: `${show(value ?? 0, "Ω")} of leads, and the reactance where the meter shows impedance.`,
        why: "House rules: what the leads add, and what the meter shows.",
      };
    case "repeats_conflict":
      return {
        title: "Repeats do not agree",
        text: `They lie ${Math.round((value ?? 0) * 100)} % apart (one deviation): contact, heat or an intermittent part. Read again.`,
        why: "More than three times what the meter explains; the whole spread counts as uncertainty.",
      };
    case "bad_then_good":
      return {
        title: "Bad in circuit, good once out",
        text: "The iron's heat can re-form a part for a while: it is not thereby sound. Read again after a night's rest.",
        why: "Settled by a second good reading half a day after the first; until then the odds stay against it.",
      };
    case "condemned_by_states":
      return {
        title: "Condemned with its bank",
        text: "No bound over the bank condemns it alone, but nearly every state of the bank that fits has it failed.",
        why: "From nine in ten on, or the house's chance for “failed” where that is higher.",
      };
    case "read_again":
      return {
        title: "Two numbers contradict each other",
        text: "What it reads lifted and what its net reads in circuit cannot both be. Read it again before anything is concluded.",
        why: "A bank never reads above any of its parts; alone on its net a part reads the same either way. One may be a decade off.",
      };
    case "leak_not_looked_for":
      return {
        title: "Leakage was not looked for",
        text: "ESR and C are in order; whether it leaks, neither of them shows.",
        why: "An ohmmeter on the net, or leakage with the lead up, would look for it.",
      };
    case "esr_low_unexplained":
      return { title: "ESR too low to be true", text: "A short or a parallel path reads low; it clears nothing.", why };
    default:
      return {
        title: "In circuit does not clear",
        text: "It reads as a sound part would. Lift one lead to clear it.",
        why: "House rule: in circuit to condemn, out to clear.",
      };
  }
}

function missingLine(code: string): LedgerLine {
  const texts: Readonly<Record<string, string>> = {
    marking_missing: "Value or voltage not entered: nothing to compare with.",
    esr_missing: "ESR not measured.",
    capacitance_missing: "C not measured out of circuit.",
  };
  return { title: "Missing", text: texts[code] ?? code, why: "" };
}

const countWords = ["no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"];

/** What several equal parts contradict, as a question to whoever entered them. */
export function entryQuestionWords(question: EntryQuestion): string {
  const { kind, positionIds, ratio, entered, suggested, isCapacitanceRead } = question;
  const beside = isCapacitanceRead ? "at good C where it was read" : "C not read";
  const count = countWords[positionIds.length] ?? String(positionIds.length);
  const times =
    ratio < 1
      ? `${Math.round(100 * ratio)} % of what they should`
      : `${Number(ratio.toPrecision(2))} times what they should`;
  const marked = entered.capacitanceFarads === null ? "" : ` entered as ${show(entered.capacitanceFarads, "F")}`;
  const who = `${capital(count)} parts${marked}`;
  switch (kind) {
    case "value":
      return `${who} all read ${times}: is the marking ${show(suggested.capacitanceFarads ?? 0, "F")}?`;
    case "size":
      return `${who} all read an ESR of ${times}, ${beside}: is the can ${millimetres(suggested.diameterMetres)} × ${millimetres(suggested.heightMetres)} mm?`;
    case "class":
      return `${who} all read an ESR of ${times}, ${beside}: are they ${suggested.capacitorClass ? classLabels[suggested.capacitorClass] : "of another class"}?`;
  }
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const millimetres = (metres: number | null) => (metres === null ? "?" : String(Number((metres * 1e3).toFixed(1))));

/** The weight in plain words beside its number. */
export function weightWords(weight: number | null): string {
  if (weight === null) return "";
  const size = Math.abs(weight);
  if (size < 0.3) return "hardly counts";
  const strength = size < 1.5 ? "speaks" : size < 4 ? "speaks strongly" : "speaks very strongly";
  return `${strength} ${weight > 0 ? "against it" : "for it"}`;
}

const recordKinds: Readonly<Record<string, string>> = {
  record_place: "seen at this place of this model",
  record_series_age: "of its series at such a place and age",
  record_series: "of its series at such a place",
  record_maker: "of its maker at such a place",
};

/** How many of its like had failed; another shop's count by less than one each. */
function recordText({ code, source }: LedgerEntry): string {
  const [, failed = "0", seen = "0"] = source.split(":");
  const count = (text: string) => String(Math.round(10 * Number(text)) / 10);
  return `${count(failed)} of ${count(seen)} ${recordKinds[code] ?? "of its like"} had failed.`;
}
