import {
  type BoardDamage,
  bridgingWire,
  type DamageKind,
  type DamageState,
  formatQuantity,
  type HeatAdvice,
  type HeatHelp,
  type JointPlane,
  type MendWay,
  type OldPartPlace,
  type OrderReason,
  traceWidthMetres,
  type WorkKind,
} from "@pale-cap/core";
import { listWords } from "./boardWords";

export const planeLabels: Readonly<Record<JointPlane, string>> = {
  none: "no plane",
  one_side: "plane, one side",
  both_sides: "planes, both sides",
};

export const oldPartLabels: Readonly<Record<OldPartPlace, string>> = {
  scrap: "scrap",
  drawer: "a drawer",
  evidence: "kept as evidence",
};

export const damageLabels: Readonly<Record<DamageKind, string>> = {
  pad: "pad lifted",
  via: "via torn",
  trace: "trace broken",
  lead: "lead broken",
};

export const mendLabels: Readonly<Record<MendWay, string>> = {
  wire: "wire",
  trace_foil: "copper foil",
  eyelet: "eyelet",
  to_next_pad: "lead bent to the next pad",
};

export const damageStateLabels: Readonly<Record<DamageState, string>> = {
  open: "not mended",
  not_shown: "mended, continuity not read",
  high: "reads too high",
  shown: "continuity read",
};

export const workLabels: Readonly<Record<WorkKind, string>> = {
  adhesive_scraped: "Brown adhesive scraped to bare board",
  alloy_cleared: "Low-melt alloy wicked out, joint re-tinned",
  electrolyte_washed: "Electrolyte washed off",
  dried: "Dried: an hour at 60 °C before power",
  joints_seen: "Joints looked at, both sides",
  leads_trimmed: "Leads trimmed, sleeve off the board",
  insulator_in: "Insulator in",
  paste_on: "Paste or pad on",
  screw_tight: "Screw or clip tight",
  sink_insulation: "Insulation to the sink at 500 V",
};

export const orderReasonWords: Readonly<Record<OrderReason, string>> = {
  fixed_first: "glued or clamped, it blocks its neighbour",
  small_beside_tall: "small beside a tall one",
  mains_last: "the mains side last: verify its charge again",
  by_hand: "moved by hand",
};

const helps: Readonly<Record<HeatHelp, string>> = {
  leaded_solder: "feed leaded solder first",
  preheat: "preheat the board",
  low_melt_then_clear: "low-melt alloy if it holds, then all of it wicked out",
  two_irons: "thick lead: two irons",
  both_legs: "both legs at once",
  rock: "one leg, then the other",
};

const span = ([low, high]: readonly [number, number], factor = 1) =>
  low === high ? `${low * factor}` : `${low * factor} to ${high * factor}`;

/** How hot, with what, how long; and when to stop. */
export function heatWords(advice: HeatAdvice): string {
  const preheat = advice.preheatCelsius ? `, board at ${span(advice.preheatCelsius)} °C` : "";
  const help = advice.help.length > 0 ? ` ${capital(listWords(advice.help.map((one) => helps[one])))}.` : "";
  return `${span(advice.tipCelsius)} °C, tip ${span(advice.tipMetres, 1e3)} mm, at most ${advice.mostSeconds} s${preheat}.${help} Three tries, then preheat; never lever.`;
}

const capital = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

/** What bridges a damage on a rail of so many amperes. */
export function bridgeWords(amps: number | null): string {
  if (amps === null || amps <= 0) return "The rail's current is not told: bridge with wire for what flows there.";
  const wire = bridgingWire(amps);
  const width = traceWidthMetres(amps);
  const of = formatQuantity(amps, "A").text;
  const trace = `a trace ${(width * 1e3).toFixed(1)} mm wide (35 µm copper, 10 K warmer)`;
  return wire === null
    ? `For ${of}: two wires of 1 mm², or ${trace}.`
    : `For ${of}: wire of ${wire * 1e6} mm², or ${trace}.`;
}

/** What was hurt, how it was mended, and what shows it. */
export function damageWords({ kind, way, size, ohms, state, note, mendNote }: BoardDamage): string {
  const by =
    way === null
      ? null
      : way === "wire" && size !== null
        ? `wire of ${Number((size * 1e6).toPrecision(3))} mm²`
        : way === "trace_foil" && size !== null
          ? `foil ${Number((size * 1e3).toPrecision(3))} mm wide`
          : mendLabels[way];
  const read = ohms === null ? "" : `, ${formatQuantity(ohms, "Ω").text}`;
  return [
    damageLabels[kind],
    note,
    by === null ? null : `mended: ${by}`,
    mendNote,
    `${damageStateLabels[state]}${read}`,
  ]
    .filter((one) => one !== null && one !== "")
    .join("; ");
}
