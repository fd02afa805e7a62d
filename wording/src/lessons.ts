import type { LessonCode } from "@pale-cap/core";

/** A short page: what it is about, one question, and the supply on which it is tried. */
export interface Lesson {
  readonly title: string;
  readonly says: readonly string[];
  readonly knobs: Readonly<Record<string, { readonly label: string; readonly unit: string }>>;
  readonly x: { readonly name: string; readonly unit: string };
  readonly y: { readonly name: string; readonly unit: string };
  readonly lines: Readonly<Record<string, string>>;
  readonly figures: Readonly<
    Record<string, { readonly label: string; readonly unit: string; readonly digits: number }>
  >;
  readonly question: string;
  readonly answers: readonly { readonly text: string; readonly because: string }[];
  /** Which of them is right, from 0. */
  readonly right: number;
  readonly supply: string;
}

const percent = { label: "left of its capacitance", unit: "%" };

export const lessons: Readonly<Record<LessonCode, Lesson>> = {
  esr_by_frequency: {
    title: "ESR depends on frequency and on the cold",
    says: [
      "ESR is no single number. At 120 Hz the losses of the oxide count, at 100 kHz the electrolyte and the tabs. A limit is only worth something beside the frequency at which it was read.",
      "The electrolyte thickens in the cold. A part that reads high in a winter van may be sound at 20 °C; Pale Cap asks for the temperature for this reason.",
    ],
    knobs: { celsius: { label: "temperature of the part", unit: "°C" } },
    x: { name: "frequency, powers of ten (2 is 100 Hz, 5 is 100 kHz)", unit: "" },
    y: { name: "ESR, Ω", unit: "" },
    lines: { now: "at this temperature", at_20: "at 20 °C" },
    figures: {
      esr_120_hertz: { label: "at 120 Hz", unit: "Ω", digits: 3 },
      esr_1_kilohertz: { label: "at 1 kHz", unit: "Ω", digits: 3 },
      esr_100_kilohertz: { label: "at 100 kHz", unit: "Ω", digits: 3 },
    },
    question: "A 470 µF part reads 0.35 Ω at 120 Hz. The sheet says 0.045 Ω at 100 kHz. What does that tell?",
    answers: [
      {
        text: "It has failed: eight times its limit.",
        because:
          "The two were not read at the same frequency. At 120 Hz a sound part of this value shows several times its ESR at 100 kHz.",
      },
      {
        text: "Nothing yet: the frequencies differ.",
        because: "Right. It is read at 100 kHz, or held against what is usual at 120 Hz.",
      },
      {
        text: "It is sound: sheets are on the careful side.",
        because: "The sheet says nothing of 120 Hz. A careful limit at another frequency clears nothing.",
      },
    ],
    right: 1,
    supply: "dried-output",
  },
  masking: {
    title: "A good neighbour hides a bad part",
    says: [
      "Two capacitors on one rail are in parallel. A tester at 100 kHz reads both, and the better one decides.",
      "A low reading in circuit therefore clears nobody. A high one condemns: if even both together are bad, the better one is.",
    ],
    knobs: { badOhms: { label: "ESR of the bad one", unit: "Ω" } },
    x: { name: "ESR of the bad one", unit: "Ω" },
    y: { name: "shown, Ω", unit: "" },
    lines: { in_circuit: "in circuit", neighbour: "the sound neighbour alone" },
    figures: {
      lifted: { label: "with a lead lifted", unit: "Ω", digits: 2 },
      in_circuit: { label: "in circuit", unit: "Ω", digits: 3 },
    },
    question: "C11 and C12 share a rail. In circuit either reads 0.04 Ω. What is known of C12?",
    answers: [
      {
        text: "It is sound.",
        because:
          "Either of them alone could bring the reading about. Turn the bad one up to 5 Ω: the tester does not move.",
      },
      {
        text: "One of the two is sound; which one is not known.",
        because: "Right. One lead of one of them settles both.",
      },
      {
        text: "Both are sound: the readings agree.",
        because: "They agree because it is the same measurement twice: both times the tester reads the pair.",
      },
    ],
    right: 1,
    supply: "masked-bank",
  },
  absorption: {
    title: "Charge that comes back",
    says: [
      "A drained electrolytic is empty at its plates, not in its dielectric. Left open it fills again, by some per cent of what it held.",
      "A bulk that stood at 325 V and was drained to nought can stand at tens of volts a quarter of an hour later. It is read again before every touch, and the drain stays on while work goes on.",
    ],
    knobs: { startVolts: { label: "it held", unit: "V" } },
    x: { name: "volts before the drain", unit: "V" },
    y: { name: "back, V", unit: "" },
    lines: { at_least: "at least", at_most: "at most" },
    figures: {
      at_least: { label: "at least", unit: "V", digits: 0 },
      at_most: { label: "at most", unit: "V", digits: 0 },
    },
    question: "You drained the bulk, read 1 V, and went for coffee. What now?",
    answers: [
      {
        text: "It was 1 V: go on.",
        because: "That was true of that moment. What comes back is enough to spoil a meter and to startle a hand.",
      },
      {
        text: "Read it again, then go on.",
        because: "Right. An old reading proves nothing; the charge watch says the same.",
      },
      {
        text: "Short it with a screwdriver to be sure.",
        because: "A screwdriver welds, sprays and damages the part. A resistor drains it, a meter shows it.",
      },
    ],
    right: 1,
    supply: "drain-first",
  },
  lamp: {
    title: "Reading the lamp",
    says: [
      "A filament lamp in series is a fuse that comes back. Cold it has a tenth of its hot resistance: it lets a sound supply start, and lights up where something takes all it can get.",
      "A flash that dims is the bulk filling. Bright and steady is a short. A pulsing glow is a supply that tries again and again. A lamp limits; it does not isolate.",
    ],
    knobs: { lampWatts: { label: "lamp", unit: "W" }, loadWatts: { label: "the unit draws", unit: "W" } },
    x: { name: "the unit draws", unit: "W" },
    y: { name: "glow, %", unit: "" },
    lines: { glow: "the lamp" },
    figures: {
      glow_percent: { label: "of its rating", unit: "%", digits: 0 },
      short_amps: { label: "into a dead short", unit: "A", digits: 2 },
    },
    question: "A 60 W lamp flashes at switch-on and goes nearly dark. What does that say?",
    answers: [
      {
        text: "The primary has no short that matters now.",
        because: "Right, and no more: whether it runs, and whether its rails stand under load, is another question.",
      },
      {
        text: "The supply is in order.",
        because: "A supply that never starts flashes just so: the bulk fills and nothing draws.",
      },
      { text: "The fuse is open.", because: "Then there would have been no flash." },
    ],
    right: 0,
    supply: "fuse-and-transistor",
  },
  leakage: {
    title: "A leak that reads as capacitance",
    says: [
      "A meter that works out a series capacitance takes every current for a capacitor's. A leak beside a sound part makes it show more, not less.",
      "A part that reads half as much again as is printed on it is no bargain. The test with voltage, or the loss test, tells.",
    ],
    knobs: { leakDecades: { label: "leak, powers of ten (3 is 1 kΩ)", unit: "" } },
    x: { name: "leak, powers of ten of ohms", unit: "" },
    y: { name: "shown, µF", unit: "" },
    lines: { shown: "shown" },
    figures: {
      leak_ohms: { label: "leak", unit: "Ω", digits: 0 },
      shown_microfarads: { label: "shown", unit: "µF", digits: 1 },
      shown_ohms: { label: "and as ESR", unit: "Ω", digits: 0 },
    },
    question: "A 10 µF part reads 16 µF at 120 Hz. What is likeliest?",
    answers: [
      {
        text: "It is better than printed.",
        because:
          "Parts come within some tens of per cent of what is printed, mostly below. So much more is no part, it is a leak.",
      },
      {
        text: "The meter is broken.",
        because: "It may be. Read a part that you know first; then this one out of the board with the loss test.",
      },
      { text: "It leaks.", because: "Right. Turn the leak up: below a kilohm the meter shows more and more." },
    ],
    right: 2,
    supply: "reads-too-much",
  },
  two_ripples: {
    title: "Ripple by its frequency",
    says: [
      "At twice the mains the bulk speaks: with less capacitance the bus falls further in each half cycle. At the converter's own frequency the output's ESR speaks.",
      "Read the frequency first. It tells which end of the supply to look at before any part is touched.",
    ],
    knobs: {
      leftPercent: { ...percent, label: "left of the bulk" },
      outputOhms: { label: "ESR of the output", unit: "Ω" },
    },
    x: { name: "left of the bulk", unit: "%" },
    y: { name: "bus, V", unit: "" },
    lines: { mains_ripple: "peak to peak" },
    figures: {
      bulk_volts_100_hertz: { label: "bus, 100 Hz", unit: "V", digits: 0 },
      output_volts_65_kilohertz: { label: "output, 65 kHz", unit: "V", digits: 3 },
    },
    question: "On the 12 V rail there is a ripple of 0.8 V at 65 kHz. Where do you look?",
    answers: [
      {
        text: "At the output capacitors.",
        because: "Right. The converter's own frequency, and the ESR that should swallow it.",
      },
      { text: "At the bulk.", because: "A dry bulk shows at twice the mains, 100 or 120 Hz." },
      {
        text: "At the mains filter.",
        because: "It keeps noise from the mains. It has no say in the ripple of a rail.",
      },
    ],
    right: 0,
    supply: "doubler-half",
  },
  unloaded: {
    title: "A good voltage without load proves nothing",
    says: [
      "Without load a bulk fills to the crest of the mains and stays there, however little of it is left. Under load it has to carry every gap between two crests.",
      "So a rail is proved at what it promises. Anything else is a reading of a supply that has nothing to do.",
    ],
    knobs: { leftPercent: percent },
    x: { name: "left of the bulk", unit: "%" },
    y: { name: "bus, V", unit: "" },
    lines: { idle: "1 W drawn", loaded: "60 W drawn" },
    figures: {
      idle_lowest_volts: { label: "with 1 W", unit: "V", digits: 0 },
      loaded_lowest_volts: { label: "with 60 W", unit: "V", digits: 0 },
    },
    question: "An adapter shows 19.0 V on the meter. The computer beeps and does not charge. The next step?",
    answers: [
      {
        text: "The adapter is good: look at the computer.",
        because: "Nobody loaded it. With a fifth of its bulk it would show the same.",
      },
      { text: "Load it with what its label says and read again.", because: "Right." },
      { text: "Change all capacitors.", because: "Perhaps one is bad. Which one is a matter of a few readings." },
    ],
    right: 1,
    supply: "bulk-open",
  },
  draining: {
    title: "Draining with a resistor",
    says: [
      "A bulk holds joules, not only volts. A resistor takes them in a time that follows from ohms and farads, and gets hot by the first watts.",
      "Too few ohms burn, too many take minutes. Some kilohms with some watts empty a usual bulk in seconds. Local electrical codes and qualified practice come first.",
    ],
    knobs: { ohms: { label: "resistor", unit: "Ω" }, microfarads: { label: "bulk", unit: "µF" } },
    x: { name: "after", unit: "s" },
    y: { name: "V", unit: "" },
    lines: { volts: "the bulk" },
    figures: {
      stored_joules: { label: "stored", unit: "J", digits: 1 },
      seconds_to_5_volts: { label: "to 5 V", unit: "s", digits: 1 },
      peak_watts: { label: "at first", unit: "W", digits: 0 },
    },
    question: "325 V on 470 µF, a resistor of 2.2 kΩ. How long until it is below 5 V?",
    answers: [
      {
        text: "About a second.",
        because: "That is one time constant. It takes four of them to get from 325 V to 5 V.",
      },
      {
        text: "About four and a half seconds.",
        because: "Right: 2.2 kΩ times 470 µF is a second, and ln(325/5) is a little over four.",
      },
      {
        text: "It cannot be known.",
        because: "With the printed capacitance it can be told within a third. It is read afterwards all the same.",
      },
    ],
    right: 1,
    supply: "standby-dead",
  },
  heat_and_life: {
    title: "Ten degrees are half a life",
    says: [
      "The electrolyte leaves through the seal, and heat opens it: ten kelvin more halve the life, ten less double it, up to about fifteen years.",
      "A better series beside a hot diode may die before a plain one two centimetres away. Where a part sits is chosen with it.",
    ],
    knobs: { celsius: { label: "temperature of the can", unit: "°C" } },
    x: { name: "temperature of the can", unit: "°C" },
    y: { name: "years", unit: "" },
    lines: { rated_2000: "2000 h at 105 °C", rated_8000: "8000 h at 105 °C" },
    figures: {
      years_2000: { label: "2000 h part", unit: "years", digits: 1 },
      years_8000: { label: "8000 h part", unit: "years", digits: 1 },
    },
    question: "The old part died after four years at 75 °C. The same one, moved to where it is 65 °C, should last:",
    answers: [
      { text: "four years and a half", because: "Ten kelvin are worth more than that." },
      { text: "about eight years", because: "Right, as long as heat was what killed it." },
      { text: "for ever", because: "Seals dry out: beyond fifteen years the law promises nothing." },
    ],
    right: 1,
    supply: "standby-dried",
  },
  control_start: {
    title: "The small capacitor that starts it all",
    says: [
      "A control chip starts on what its capacitor has collected through a resistor. From then on it lives on that until the winding takes over, some milliseconds later.",
      "A capacitor that has dried cannot carry it so far: the chip starts, starves, stops, and tries again. It ticks. Warm it may just reach: “starts at the third try”.",
    ],
    knobs: { leftPercent: percent },
    x: { name: "left of its capacitance", unit: "%" },
    y: { name: "ms", unit: "" },
    lines: { runs_for: "on what it holds" },
    figures: {
      runs_milliseconds: { label: "runs for", unit: "ms", digits: 1 },
      least_microfarads: { label: "needs at least", unit: "µF", digits: 1 },
      first_try_seconds: { label: "first try after", unit: "s", digits: 1 },
    },
    question: "A supply ticks once a second, its rails twitch. Which part is read first?",
    answers: [
      {
        text: "The capacitor at the control chip.",
        because: "Right: cheap, quick to read, and the commonest reason. A shorted output comes next.",
      },
      { text: "The bulk.", because: "A dry bulk hums and falls under load. It does not tick without any." },
      { text: "The fuse.", because: "It tries: so there is mains." },
    ],
    right: 0,
    supply: "control-capacitor",
  },
  too_little_esr: {
    title: "Too little ESR is a fault as well",
    says: [
      "Many regulations lean on the ESR of their output capacitors: it gives them phase just where they need it. A polymer part with a tenth of the ESR takes that away.",
      "Then a rail sings, or swings at a step of load, though every part reads like new. Beyond fifteen degrees lost a step of load is tried; beyond thirty another part is taken.",
    ],
    knobs: { newOhms: { label: "ESR of the new bank", unit: "Ω" } },
    x: { name: "ESR of the new bank", unit: "mΩ" },
    y: { name: "lost, °", unit: "" },
    lines: { lost_degrees: "against the old bank of 40 mΩ" },
    figures: { lost_degrees: { label: "lost", unit: "°", digits: 0 } },
    question: "After a recap with polymer parts a rail whistles. All of them read 8 mΩ. What now?",
    answers: [
      {
        text: "One of them must be bad.",
        because: "They read as they should. The loop does not like what they should be.",
      },
      {
        text: "Liquid parts with an ESR near the old ones go in.",
        because: "Right. Choose says how low is too low for this place.",
      },
      { text: "More capacitance beside them.", because: "More of the same lowers the ESR further." },
    ],
    right: 1,
    supply: "rings-with-polymer",
  },
  one_reading: {
    title: "What one reading is worth",
    says: [
      "A reading moves a chance; it does not make a truth. How far depends on how much likelier a bad part shows it than a sound one, and on what was likely before.",
      "A domed can on a board full of dead ones says little more. The same dome on a board without a complaint says a great deal, and still not all.",
    ],
    knobs: {
      priorPercent: { label: "likely before", unit: "%" },
      timesLikelier: { label: "a bad one shows it so many times as often", unit: "×" },
    },
    x: { name: "likely before", unit: "%" },
    y: { name: "after, %", unit: "" },
    lines: { after: "after this reading" },
    figures: {
      after_percent: { label: "likely after", unit: "%", digits: 0 },
      doubt_before_bits: { label: "doubt before", unit: "bit", digits: 2 },
      doubt_after_bits: { label: "doubt after", unit: "bit", digits: 2 },
    },
    question:
      "One part in ten fails. A reading that bad parts show nine times as often as sound ones: how likely is it bad now?",
    answers: [
      {
        text: "nine in ten",
        because: "Among ten parts one is bad, and nine sound ones have a chance each to show the same.",
      },
      { text: "as likely as not", because: "Right: one to nine before, nine times over, is one to one." },
      { text: "one in ten, as before", because: "Then the reading would have told nothing." },
    ],
    right: 1,
    supply: "domed-and-sound",
  },
};
