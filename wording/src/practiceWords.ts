import type { BenchEvent, Consequence, HandActKind, HandCheck, Told } from "@pale-cap/contract";
import { chargeHazard, type PracticeBreach, type PracticeSkill } from "@pale-cap/core";

export const skillLabels: Readonly<Record<PracticeSkill, string>> = {
  draining: "Draining, and volts before ohms",
  in_circuit: "Reasoning in circuit",
  cascades: "What a fault takes along",
  choosing: "Choosing the new part",
  proving: "Proving under load",
};

export const difficultyLabels: Readonly<Record<number, string>> = {
  1: "shows itself",
  2: "hidden",
  3: "misleads",
};

/** What hands do, as it stands on a button and in the debrief. */
export const handActLabels: Readonly<Record<HandActKind, string>> = {
  look: "Look",
  smell: "Smell",
  listen: "Listen",
  move: "Move it",
  cool: "Cool it",
  warm: "Warm it",
  wait: "Wait",
  lift: "Lift a lead",
  take_out: "Take it out",
  put_back: "Solder it back",
  fit: "Put a new one in",
  renew: "Renew it",
  resolder: "Make the joint anew",
  clean: "Scrape it clean",
  mend: "Mend the pad",
  new_meter: "Take a new meter",
  mains: "Mains",
  drain: "Drain",
  clip: "Earthed clip",
  host: "Connect the device",
  load: "Load",
  check: "Try",
};

export const handCheckLabels: Readonly<Record<HandCheck, string>> = {
  lead: "another mains lead",
  output_lead: "the output lead",
  bench_feed: "the device on a bench supply",
  lamps: "the lamps of the picture",
  swap: "another supply in its place",
};

/** An act by its name, as the debrief tells it. */
export function actWords(name: string, at: string | null): string {
  if (name === "hint") return "A hint";
  if (name === "mains_on") return "Mains on";
  if (name === "mains_off") return "Mains off";
  if (name.startsWith("check_")) return `Tried ${handCheckLabels[name.slice(6) as HandCheck]}`;
  const label = handActLabels[name as HandActKind] ?? name;
  return at ? `${label}: ${at}` : label;
}

/** What a trial around the supply showed, good or bad. */
const checkWords: Readonly<Record<HandCheck, readonly [good: string, bad: string]>> = {
  lead: ["Another mains lead changes nothing.", "With another mains lead it works: the lead was it."],
  output_lead: ["The output lead carries, as it lies now.", "The output lead carries nothing."],
  bench_feed: ["Fed from a bench supply the device works.", "Fed from a bench supply the device does not work either."],
  lamps: ["Fed by themselves the lamps of the picture light.", "Fed by themselves the lamps of the picture stay dark."],
  swap: [
    "With another supply in its place the device works.",
    "With another supply in its place the device does not work either.",
  ],
};

/** What eyes, nose and ears tell back, as one sentence. */
export function toldWords({ code, at, words, flashRatio = 0, glowRatio = 0 }: Told): string {
  switch (code) {
    case "done":
      return at ? `${at}: done.` : "Done.";
    case "looks":
      return `${at}: ${words}.`;
    case "looks_clean":
      return at
        ? `${at} looks like new. That clears nothing.`
        : "Nothing on the board stands out. That clears nothing.";
    case "smells":
      return `It smells of ${words}.`;
    case "smells_of_nothing":
      return "It smells of nothing in particular.";
    case "ticks":
      return "It ticks: it tries, gives up and tries again.";
    case "hums":
      return "It hums.";
    case "whines":
      return "It whines, thin and high.";
    case "silent":
      return "Nothing to hear.";
    case "lamp":
      return lampWords(flashRatio, glowRatio);
    case "no_lamp_runs":
      return "On, without a lamp between. It runs.";
    case "no_lamp_nothing":
      return "On, without a lamp between. Nothing runs.";
    case "check_good":
      return checkWords[at as HandCheck]?.[0] ?? "It is in order.";
    case "check_bad":
      return checkWords[at as HandCheck]?.[1] ?? "It is not in order.";
    case "moved_changes":
      return `${at}: something changes. It opens.`;
    case "moved_nothing":
      return `${at}: nothing changes.`;
    case "host_works":
      return "The device works.";
    case "host_fails":
      return "The device does not work.";
    case "not_there":
      return at === "lamps" ? "It has no lamps." : `There is no ${at ?? "such part"} here.`;
    case "not_so":
      return `${at ?? "That"}: not as things stand. Look at what is lifted and what is out.`;
  }
}

function lampWords(flash: number, glow: number): string {
  if (flash === 0 && glow === 0) return "The lamp stays dark, without a flash: nothing draws.";
  if (glow > 0.9) return "The lamp lights up and stays bright: something draws all it can get.";
  const settled = glow < 0.12 ? "goes nearly dark" : glow < 0.45 ? "settles at a dim glow" : "stays half bright";
  return flash > 0.5 ? `The lamp flashes and ${settled}.` : `The lamp ${settled}; the bulk was full already.`;
}

/** What would have happened to a hand, or did to a thing: told at the moment. */
export const consequenceTitles: Readonly<Record<Consequence, string>> = {
  live_touch: "That was live",
  meter_killed: "The meter is dead",
  fuse_blown: "The fuse went",
  power_untested: "Power before the short test",
  transistor_burnt: "A transistor went with it",
  part_vented: "It vented",
  new_part_burnt: "The new part is gone",
  bench_tripped: "The bench tripped",
  breaker_tripped: "The breaker tripped",
  earth_trip: "The residual-current device tripped",
  host_unchecked: "A device before the rails were read",
  host_killed: "The device is dead",
  pad_pulled: "A pad came along",
  overvolted: "It went: too few volts",
};

export function consequenceWords({ code, at, volts, joules }: BenchEvent): string {
  const there = at ?? "there";
  switch (code) {
    case "live_touch":
      return `${there} stood at ${Math.round(volts ?? 0)} V. ${handWords(volts ?? 0, joules)}`;
    case "meter_killed":
      return `Ohms on ${Math.round(volts ?? 0)} V at ${there}. The meter sends its own current and has nothing against that. Volts come first, always. ${handWords(volts ?? 0, joules)}`;
    case "fuse_blown":
      return "What the old fuse died of was still there. A fuse is never the fault alone until the short test says so.";
    case "power_untested":
      return "Nobody had read ohms in the primary, and no lamp stood between. A short there puts the whole mains into the board, with a hand on the switch.";
    case "transistor_burnt":
      return `${there} was driven into a short beside it.`;
    case "part_vented":
      return `${there} sat the wrong way round. It gets hot, opens and sprays; an eye that is near needs a doctor.`;
    case "new_part_burnt":
      return `${there} was new. What had killed the old one was still on the board.`;
    case "bench_tripped":
      return "The clip of a scope is earth. On hot ground it is a short from the mains through the lead and the scope; without the trip it would have burnt in the hand.";
    case "breaker_tripped":
      return "The thermistor was still hot and held nothing back at switch-on.";
    case "earth_trip":
      return "Current left by the earth. It goes through whoever is a better way than the wire.";
    case "host_unchecked":
      return "Nobody had read the rails under power. A rail that is too high kills what is connected to it, and nobody sees it coming.";
    case "host_killed":
      return `${there} stood at ${(volts ?? 0).toFixed(1)} V. A customer's device would be gone.`;
    case "pad_pulled":
      return `The copper under ${there} took the heat, the joint was still hard. Warm such a place from below first. It has to be mended before a part is connected there.`;
    case "overvolted":
      return `${there} had ${Math.round(volts ?? 0)} V on it, more than is printed on it. It lasted for half a minute.`;
  }
}

/** What a charge does to a hand. Rough, and never a promise that something is harmless. */
function handWords(volts: number, joules: number | null): string {
  if (chargeHazard(volts) !== "hazardous") return "";
  const energy = joules === null || joules < 0.01 ? "" : `, ${joules < 1 ? joules.toFixed(2) : joules.toFixed(1)} J`;
  const worst = (joules ?? 0) > 0.35 || joules === null;
  return worst
    ? `A hand would have got ${Math.round(volts)} V${energy}: a blow that throws it back, burns, and can stop a heart.`
    : `A hand would have got ${Math.round(volts)} V${energy}: a blow that makes it jump, into whatever is beside it.`;
}

export const breachLabels: Readonly<Record<PracticeBreach, string>> = {
  live_touch: "touched what was live",
  bench_tripped: "clipped earth to hot ground",
  meter_killed: "read ohms on a charge",
  part_vented: "put a part in the wrong way round",
  power_untested: "power before the short test",
  host_unchecked: "connected a device before the rails were read",
  host_killed: "killed the device",
  transistor_burnt: "burnt a transistor",
  new_part_burnt: "burnt a new part",
  overvolted: "too few volts on a new part",
  fuse_blown: "blew a fuse",
  pad_pulled: "pulled a pad",
  breaker_tripped: "tripped the breaker",
  earth_trip: "tripped the residual-current device",
  hint_1: "hint: where to look",
  hint_2: "hint: which test",
  hint_3: "hint: why",
  sound_condemned: "sound part condemned",
  bad_left: "bad part left in",
  needless_lift: "lead lifted for nothing",
  check_missed: "not tested, though the fault takes it along",
  wrong_part: "new part that does not fit its place",
  proof_left: "output not read under load afterwards",
};

/** The last word on a part, by five keys. */
export const answerSteps = [
  { badProbability: 0.02, label: "sound" },
  { badProbability: 0.2, label: "rather sound" },
  { badProbability: 0.5, label: "cannot tell" },
  { badProbability: 0.8, label: "rather bad" },
  { badProbability: 0.98, label: "bad" },
] as const;

export const outsideLabel = "Something around the supply";

export const practiceNote =
  "Nobody's unit: a virtual supply on a simulated bench of its own. Nothing here counts for the shop's record, its drawers or its figures. What would hurt at a real bench is told in words.";

export const scoreNote =
  "Part of the score is how well the chances you gave fit what is true: whoever says what they believe loses least. The rest is the minutes of the search against the application's own way. What could have hurt somebody is no matter of points: it does not pass.";
