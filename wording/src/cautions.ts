/** Every caution of the product, written once and keyed by the situation in which it is shown. */
export const cautions = {
  storedCharge:
    "A bulk capacitor kills after the plug is out. Drain through a rated resistor or lamp with one hand, measure at its pins, wait, measure again: it creeps back.",
  shortWithTool: "Do not short it with a tool: the arc pits the pins, welds the tool and can burst the part.",
  xCapacitor:
    "The pins of the plug can stay charged after it is pulled: a discharge chip works only while its unit does. Do not touch them; drain the X capacitor across the pins through a resistor, on either side of the fuse.",
  voltsFirst: "DC volts first, at the same pins: a charge there destroys the meter and burns the hand.",
  ohmsOnCharge: "Measure DC volts first: ESR or ohms on a charged part destroys the meter.",
  chargeUnknown: "Stored charge is not verified now. Measure DC volts at the pins before you touch this side.",
  livePrimary:
    "Live primary: only if you are qualified for it. The clip of an earthed scope on the hot ground is a dead short: a differential probe, or the unit behind an isolation transformer and the scope earthed, its clip under 5 V a.c. against earth by a meter first. Two channels never straddle the barrier; a scope's earth is never lifted.",
  firstPower:
    "First power through a series lamp or limiter, eye protection on, a cover over the board, face away: a bulk vents upward. An isolation transformer isolates; it does not limit current. The lamp burns skin.",
  residualCurrent:
    "Behind an isolation transformer the residual-current device upstream protects no more, and one hand on the wrong side is enough.",
  blownFuse:
    "A blown fuse is not replaced and retried: test for a short first. An intact fuse does not clear the transistor.",
  overVoltage:
    "A dried control or standby capacitor can drive the outputs high and kill the host: host unplugged, dummy load, every rail measured before anything is connected.",
  polarity: "A reversed electrolytic vents within seconds. Check each one from two records before power.",
  limitedEnergy:
    "Plug out and bulk verified before a bench supply goes on. Set volts and current limit first; the board can still make mains-level volts once it switches.",
  underLoad: "Under power and load: keep one hand away from the board, and stop at smell, hiss or smoke.",
  hotSink:
    "A heat sink may be the drain or the hot ground: not touched, not joined to another, never a scope's ground. It burns as well.",
  phantomVolts:
    "Between the two sides 50 to 100 V a.c. may stand through the Y capacitors: it tingles and falls to nothing under a load. That is no fault, and no proof of insulation either.",
  backlight:
    "A backlight's lamps run above 1 kV and its LED strings at 60 to 250 V on the output side, more when one is open: burns and shock far from the mains side.",
  electrolyte:
    "Electrolyte has leaked: gloves on, nothing to the eyes, off the skin with soap and water at once, off the board before any heat. A smell of fish is it too. Its fumes bite, and what stays goes on corroding.",
  hotAir: "Hot air: film and X capacitors beside it melt first. Shield them, or use the iron.",
  chargedByTest: "An insulation test and an outside feed charge what they are put on: discharge it and verify again.",
  reforming:
    "Re-forming puts up to the rated volts on a loose part: only if you are qualified for it, eye protection on, a cover over it, current limited, never left alone. It can burst, and it stays charged until it is drained and read twice.",
  standing:
    "Pale Cap is an aid to a competent person. Local electrical codes and licensed or qualified practice come first. It says what was measured and when, never that something is safe.",
} as const;

export type CautionKey = keyof typeof cautions;

/** The cautions in the order of the work; the standing one is said above them all. */
export const cautionChapters: readonly (readonly [title: string, keys: readonly CautionKey[]])[] = [
  [
    "Before a hand goes in",
    ["storedCharge", "xCapacitor", "shortWithTool", "chargeUnknown", "chargedByTest", "electrolyte"],
  ],
  ["Before a meter touches a part", ["voltsFirst", "ohmsOnCharge"]],
  ["On a live primary", ["livePrimary", "residualCurrent", "hotSink", "phantomVolts", "backlight"]],
  ["With heat", ["hotAir"]],
  ["Before power", ["blownFuse", "overVoltage", "limitedEnergy", "polarity", "firstPower"]],
  ["Under power", ["underLoad", "reforming"]],
];
