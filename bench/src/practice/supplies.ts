import type { ScenarioDevice } from "@pale-cap/contract";
import type { Recipe } from "./recipe";

const glue = (
  at: string,
  pins: Readonly<Record<string, string>>,
  ohms: number,
  place: [number, number],
  net: string,
): ScenarioDevice => ({
  ...{ at, kind: "resistor", pins, ohms, henrys: null, condition: "good", place, outline: [8, 4] },
  ...{ net, role: "glue" },
});
const domed = "top domed";
const brownBoard = "board browned around it";

/** The supplies that come with the product, in the order in which they are offered. */
export const recipes: readonly Recipe[] = [
  {
    ...{ name: "drain-first", title: "Monitor that stays dark", base: "monitor", seed: 301, difficulty: 1 },
    story: "It was fine on Friday. On Monday the light did not even come on.",
    symptoms: ["dead"],
    devices: { R4: "open" },
    answer:
      "The start-up resistor R4 is open. The control chip never gets its supply, nothing draws from the bulk, and C3 keeps its charge for minutes.",
  },
  {
    ...{ name: "fuse-and-transistor", title: "Monitor after a bang", base: "monitor", seed: 302, difficulty: 2 },
    story: "There was a bang and a flash inside, then nothing. Somebody put a new fuse in and it went at once.",
    symptoms: ["dead", "bang", "fuse_blown"],
    devices: { F1: "open", Q1: "shorted", R9: "open", R7: "open" },
    looks: { R9: ["cracked, a black spot", "burst"], Q1: ["a small crater in the case", "burst"] },
    smell: "burnt resin",
    answer:
      "Q1 went short and took the shunt R9, the gate resistor R7 and the fuse along. A new fuse alone only blows again.",
  },
  {
    ...{
      name: "masked-bank",
      title: "Monitor that starts at the third try",
      base: "monitor",
      seed: 303,
      difficulty: 2,
    },
    story: "I have to press the button two or three times. Once it is warm it stays on.",
    symptoms: ["repeated_attempts", "cold_start_fails", "worse_over_months"],
    fates: { C12: ["dry", 0.32] },
    answer: "C12 has dried. Its neighbour C11 hides it in circuit: only a lifted lead shows it.",
  },
  {
    ...{ name: "control-capacitor", title: "Monitor that ticks", base: "monitor", seed: 304, difficulty: 1 },
    story: "It ticks like a clock and the light pulses. It got worse over the winter.",
    symptoms: ["ticking", "indicator_pulses", "worse_over_months"],
    fates: { C7: ["dry", 0.18] },
    answer: "C7 at the control chip has dried: it cannot carry the chip until the winding takes over.",
  },
  {
    ...{
      name: "doubler-half",
      title: "Computer supply that falls under load",
      base: "computer",
      seed: 305,
      difficulty: 2,
    },
    story: "The computer starts, and as soon as it has something to do it goes off. There is a hum.",
    symptoms: ["fails_under_load", "hum"],
    fates: { C6: ["dry", 0.12] },
    answer:
      "C6, one half of the doubler, has lost nearly all of its capacitance. The other half cannot carry the bus alone.",
  },
  {
    ...{ name: "reads-too-much", title: "Adapter that will not start", base: "adapter", seed: 306, difficulty: 2 },
    story:
      "The lamp at the plug is off. My nephew measured a capacitor and says that it has more than is printed on it.",
    symptoms: ["dead"],
    fates: { C4: ["leak", 300] },
    answer:
      "C4 leaks. A meter reads the leakage as capacitance, and the start-up current goes through it instead of into the chip.",
  },
  {
    ...{
      name: "short-at-24",
      title: "Television with a click and no more",
      base: "television",
      seed: 307,
      difficulty: 2,
    },
    story: "A red light, and when I press the button it clicks and nothing else happens.",
    symptoms: ["indicator_steady", "relay_clicks", "ticking"],
    devices: { Q6: "shorted" },
    answer:
      "Q6, the transistor that rectifies the 24 V, is shorted. The rail reads a short: it is the rectifier and not the load.",
  },
  {
    ...{ name: "boost-diode", title: "Television that took the breaker", base: "television", seed: 308, difficulty: 3 },
    story: "It threw the breaker in the evening. Before that it had worked for six years.",
    symptoms: ["dead", "breaker_tripped", "fuse_blown"],
    devices: { F1: "open", Q1: "shorted", D1: "shorted", R1: "open" },
    looks: { R1: ["black in the middle", "burst"] },
    smell: "burnt resin",
    answer:
      "The boost diode D1 went short and took the boost transistor Q1, its shunt R1 and the fuse along. A new Q1 beside the old D1 dies at once.",
  },
  {
    ...{
      name: "standby-high",
      title: "Television that forgets its channels",
      base: "television",
      seed: 309,
      difficulty: 3,
    },
    story: "It restarted by itself a few times, and the shop across the road said that the main board is dead.",
    symptoms: ["voltage_high", "resets"],
    devices: { U6: "open" },
    answer:
      "The standby's coupler U6 is open: 5 V stands at nearly 7 V. Whatever is connected to it dies; it is read before a device is.",
  },
  {
    ...{ name: "nothing-wrong", title: "Monitor that was a loose plug", base: "monitor", seed: 310, difficulty: 1 },
    story: "It went off and would not come on. At home it works again, but I want to be sure.",
    symptoms: ["dead", "intermittent"],
    answer:
      "Nothing is wrong with it. Every part reads as it should and the rails stand under load: the plug at the wall was loose.",
  },
  {
    ...{ name: "cold-joint", title: "Instrument that fails in the cold", base: "instrument", seed: 311, difficulty: 3 },
    story: "In the morning it stays dark. When the room is warm it works all day.",
    symptoms: ["cold_start_fails", "intermittent"],
    weak: { Q1: { path: "Vcc", opens: "cold" } },
    looks: { Q1: ["a dull ring around the middle leg", "cracked_joint"] },
    answer: "The joint of Q1 is cracked. Cold it opens, warm it closes again. No part is bad.",
  },
  {
    ...{ name: "adapter-cable", title: "Adapter that needs its cable held", base: "adapter", seed: 312, difficulty: 1 },
    story: "It charges only if I bend the cable to the side at the plug.",
    symptoms: ["no_charging", "intermittent"],
    weak: { CN1: { path: "19 V", opens: "handled" } },
    looks: { CN1: ["the wire is thin where it leaves its sleeve", "cracked_joint"] },
    answer: "The output lead is broken where it leaves the sleeve. The supply inside is in order.",
  },
  {
    ...{
      name: "light-strip",
      title: "Television, sound without picture",
      base: "television",
      seed: 313,
      difficulty: 2,
    },
    story: "Sound, no picture. For a second it lights up, then it is dark. Everybody says it is the supply.",
    symptoms: ["no_picture", "backlight_drops_out", "drops_after_seconds"],
    outside: "lamps",
    answer: "A strip of the backlight is open. Every rail stands under load: the supply is in order.",
  },
  {
    ...{ name: "warmed-by-the-iron", title: "Instrument that whistles", base: "instrument", seed: 314, difficulty: 2 },
    story: "It whistles and the display shivers. Another shop took a part out, measured it as good and put it back.",
    symptoms: ["ripple_switching", "whine", "worse_over_months"],
    fates: { C23: ["dry", 0.36], C22: ["dry", 0.6] },
    answer:
      "C23 has dried, and C22 is on its way with a third of its capacitance gone. Warm from the iron C23 reads well for some minutes: a part is read when it is cold again.",
  },
  {
    ...{
      name: "printed-too-large",
      title: "Console that was repaired before",
      base: "console",
      seed: 315,
      difficulty: 3,
    },
    story: "It was repaired half a year ago with new capacitors. Now it does the same again.",
    symptoms: ["collapses_under_load", "fails_under_load"],
    fates: { C11: ["dry", 0.3, 2], C12: ["dry", 0.34, 2] },
    looks: { C11: ["shiny, new, sits askew"], C12: ["shiny, new, sits askew"] },
    answer:
      "C11 and C12 are new and have a third of what is printed on them. New is not good: they are read like all others.",
  },
  {
    ...{
      name: "rings-with-polymer",
      title: "Instrument that sings since its repair",
      base: "instrument",
      seed: 316,
      difficulty: 3,
    },
    story: "Since it was repaired it sings quietly, and the display is not calm.",
    symptoms: ["whine", "ripple_switching"],
    alter: (scenario) => ({
      ...scenario,
      nets: scenario.nets.map((one) =>
        one.name === "5 V"
          ? { ...one, loop: { crossoverHertz: 3000, integratorHertz: 150, leastEsrOhms: 0.008 } }
          : one,
      ),
      capacitors: scenario.capacitors.map((one) =>
        one.net === "5 V" ? { ...one, capacitorClass: "polymer" as const } : one,
      ),
    }),
    looks: { C31: ["new, without a vent"], C32: ["new, without a vent"] },
    answer:
      "No part is bad. Polymer capacitors went in where the loop needs the ESR of liquid ones: the 5 V swings by itself.",
  },
  {
    ...{
      name: "restarts-hot",
      title: "Computer supply that takes the breaker",
      base: "computer",
      seed: 317,
      difficulty: 2,
    },
    story: "When I switch it off and on again at once the breaker goes. From cold it never does.",
    symptoms: ["breaker_tripped"],
    answer:
      "Nothing is wrong. The thermistor is still hot and lets the whole inrush through: it wants a minute to cool.",
  },
  {
    ...{ name: "brown-glue", title: "Monitor with brown glue", base: "monitor", seed: 318, difficulty: 3 },
    story: "It comes and goes, mostly goes. In the damp it is worse.",
    symptoms: ["intermittent", "ticking", "dead"],
    extra: [glue("GL1", { "1": "Vcc", "2": "hot ground" }, 18e3, [46, 92], "Vcc")],
    looks: { GL1: ["brown glue across the pads of C7 and the ground beside it", "adhesive_brown"] },
    answer:
      "The glue between Vcc and ground has turned brown and conducts: the start-up current goes through it. It is scraped off; no part is bad.",
  },
  {
    ...{
      name: "drops-when-moved",
      title: "Computer supply that goes off when moved",
      base: "computer",
      seed: 319,
      difficulty: 2,
    },
    story: "If somebody knocks at the table it goes off. Then it runs for days.",
    symptoms: ["intermittent"],
    weak: { CN1: { path: "12 V", opens: "handled" } },
    looks: { CN1: ["one pin is dark and loose in its shell", "cracked_joint"] },
    answer: "A pin of CN1 has lost its grip. It opens when it is moved.",
  },
  {
    ...{
      name: "trips-the-earth",
      title: "Instrument that takes the residual-current device",
      base: "instrument",
      seed: 320,
      difficulty: 3,
    },
    story: "As soon as it is plugged in the whole flat is dark. Not switched on, only plugged in.",
    symptoms: ["residual_current_tripped"],
    extra: [
      {
        ...{ at: "RV2", kind: "varistor", pins: { "1": "line fused", "2": "earth" }, ohms: null, henrys: null },
        ...{ condition: "shorted", place: [34, 78], outline: [10, 4], net: null, looks: null },
      },
    ],
    looks: { RV2: ["split, a dark spot on its side", "burst"] },
    answer: "The varistor RV2 from line to earth is shorted. Between line and neutral everything reads as it should.",
  },
  {
    ...{ name: "dried-output", title: "Television with stripes", base: "television", seed: 321, difficulty: 1 },
    story: "Stripes in the picture, and it takes longer every week until they go.",
    symptoms: ["ripple_switching", "worse_over_months"],
    fates: { C31: ["dry", 0.25], C32: ["dry", 0.3] },
    looks: { C31: [domed, "domed"] },
    answer: "Both parts of the 12 V bank, C31 and C32, have dried, not only the domed one.",
  },
  {
    ...{ name: "boost-asleep", title: "Television that is dim", base: "television", seed: 322, difficulty: 3 },
    story: "It works, but not when the picture gets bright. There is a standby light.",
    symptoms: ["fails_under_load", "indicator_steady"],
    devices: { U3: "shorted" },
    answer: "The boost controller U3 is dead: the bulk stands at the crest of the mains instead of 388 V.",
  },
  {
    ...{ name: "standby-dried", title: "Console that wakes slowly", base: "console", seed: 323, difficulty: 1 },
    story: "The light blinks for a minute before it starts. Later it does not start at all.",
    symptoms: ["indicator_pulses", "repeated_attempts", "worse_over_months"],
    fates: { C16: ["heat", 14], C17: ["dry", 0.4] },
    looks: { C16: [brownBoard, "board_browned"] },
    answer: "C16 sits in the heat of its rectifier and its ESR has gone up; C17 beside it has dried.",
  },
  {
    ...{ name: "standby-dead", title: "Console, nothing at all", base: "console", seed: 324, difficulty: 2 },
    story: "Nothing. No light, no sound. It was hot that day.",
    symptoms: ["dead"],
    devices: { U5: "shorted", F1: "open" },
    smell: "burnt resin",
    answer: "The standby switcher U5 is shorted and took the fuse. The main converter is in order.",
  },
  {
    ...{ name: "bulk-open", title: "Adapter that gives up under load", base: "adapter", seed: 325, difficulty: 1 },
    story: "19 V at the plug, but the computer beeps and does not charge.",
    symptoms: ["fails_under_load", "hum", "no_charging"],
    fates: { C1: ["open", 0] },
    answer:
      "C1, the bulk, is open. Without load the crest of the mains is enough: a good voltage without load proves nothing.",
  },
  {
    ...{ name: "rectifier-short", title: "Monitor that tries and gives up", base: "monitor", seed: 326, difficulty: 1 },
    story: "The light comes for a moment and goes, again and again.",
    symptoms: ["ticking", "indicator_pulses"],
    devices: { D8: "shorted" },
    answer: "The rectifier D8 is shorted.",
  },
  {
    ...{
      name: "buck-ceramic",
      title: "Router that gets warm and does nothing",
      base: "appliance",
      seed: 327,
      difficulty: 2,
    },
    story: "The adapter gets warm, the device does nothing. The adapter is new.",
    symptoms: ["dead"],
    devices: { C18: "shorted" },
    answer: "The ceramic capacitor C18 across 3.3 V is shorted.",
  },
  {
    ...{ name: "buck-dried", title: "Router that restarts", base: "appliance", seed: 328, difficulty: 1 },
    story: "It restarts several times a day, in summer more often.",
    symptoms: ["resets", "ripple_switching", "worse_over_months"],
    fates: { C5: ["dry", 0.2], C6: ["dry", 0.28] },
    looks: { C5: [domed, "domed"] },
    answer: "Both capacitors of the 5 V, C5 and C6, have dried.",
  },
  {
    ...{ name: "buck-regulator", title: "Router with a dead chip", base: "appliance", seed: 329, difficulty: 2 },
    story: "It was working, then a light went out. The other lights are on.",
    symptoms: ["voltage_low"],
    devices: { U4: "open" },
    answer: "The regulator U4 gives nothing: 3.3 V is missing, 5 V stands.",
  },
  {
    ...{ name: "forward-tab", title: "Instrument that resets at random", base: "instrument", seed: 330, difficulty: 2 },
    story: "Every few hours it resets. Nobody found anything.",
    symptoms: ["resets", "ripple_switching"],
    fates: { C32: ["tab", 160], C31: ["dry", 0.86] },
    answer: "C32 has lost its tab: its capacitance is all there, its ESR is not. C31 is sound and hides it.",
  },
  {
    ...{ name: "half-bridge-pair", title: "Computer supply after a storm", base: "computer", seed: 331, difficulty: 3 },
    story: "After the thunderstorm nothing worked any more. The fuse is black.",
    symptoms: ["dead", "fuse_blown", "bang", "after_storm"],
    devices: { F1: "open", RV1: "shorted", BR1: "shorted" },
    looks: { RV1: ["burst, soot around it", "burst"] },
    smell: "soot",
    answer:
      "The surge shorted the varistor RV1 and the bridge BR1, and the fuse went. The transistors behind them are sound.",
  },
  {
    ...{ name: "domed-and-sound", title: "Monitor with a domed part", base: "monitor", seed: 332, difficulty: 3 },
    story: "I saw a bad capacitor in it on the internet: the one beside the coil. Please change it.",
    symptoms: ["repeated_attempts", "indicator_pulses", "ticking"],
    fates: { C7: ["dry", 0.2] },
    looks: { C13: ["sleeve shrunk at the top, looks a little domed", "sleeve_damaged"] },
    answer: "C13 only looks bad: its sleeve has shrunk. C7 at the control chip has dried and looks like new.",
  },
];
