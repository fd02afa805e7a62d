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
    "First power through a series lamp or limiter, eye protection on, a cover over the board. An isolation transformer isolates; it does not limit current.",
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
  standing:
    "Pale Cap is an aid to a competent person. Local electrical codes and licensed or qualified practice come first. It says what was measured and when, never that something is safe.",
} as const;

export type CautionKey = keyof typeof cautions;

/** The cautions in the order of the work; the standing one is said above them all. */
export const cautionChapters: readonly (readonly [title: string, keys: readonly CautionKey[]])[] = [
  ["Before a hand goes in", ["storedCharge", "xCapacitor", "shortWithTool", "chargeUnknown"]],
  ["Before a meter touches a part", ["voltsFirst", "ohmsOnCharge"]],
  ["On a live primary", ["livePrimary", "residualCurrent"]],
  ["Before power", ["blownFuse", "overVoltage", "limitedEnergy", "polarity", "firstPower"]],
  ["Under power", ["underLoad"]],
];
