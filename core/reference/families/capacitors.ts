import { canImpedance } from "../../src/capacitors/canImpedance";
import type { LiquidCapacitorClass } from "../../src/capacitors/capacitorClass";
import { compensatedEsr } from "../../src/capacitors/compensatedEsr";
import { dissipationFactorLimitRatio, type SurchargeStep } from "../../src/capacitors/dissipationFactorLimit";
import { expectedEsr } from "../../src/capacitors/expectedEsr";
import { seriesResistanceTemperatureFactor } from "../../src/capacitors/seriesResistanceTemperatureFactor";
import { type TesterSituation, testerReading } from "../../src/capacitors/testerReading";
import type { FamilyAdapter } from "../adapter";
import { type Inputs, number, optionalNumber, word } from "../inputs";

const liquid: readonly LiquidCapacitorClass[] = ["gp", "lowz", "ultra"];

const millimetres = (value: number | null) => (value === null ? null : value / 1e3);

const tester = (inputs: Inputs): TesterSituation => ({
  capacitanceFarads: number(inputs, "C_F"),
  frequencyHertz: number(inputs, "f_Hz"),
  eslHenrys: number(inputs, "esl_H"),
  leadOhms: number(inputs, "R_lead"),
  leadHenrys: number(inputs, "L_lead_H"),
  mode: word(inputs, "mode", ["real", "magnitude"]),
});

/** The classes that the cases know. */
const referenceClasses = ["gp", "lowz", "ultra", "polymer"] as const;

export const capacitorFamilies: Readonly<Record<string, FamilyAdapter>> = {
  "a-tan-delta-limit": (inputs) => ({
    tan_delta: dissipationFactorLimitRatio({
      ratedVolts: number(inputs, "Vr_V"),
      capacitanceFarads: number(inputs, "C_uF") / 1e6,
      capacitorClass: word(inputs, "cls", liquid),
      step: word<SurchargeStep>(inputs, "step", ["continuous", "floor", "ceil"], "continuous"),
    }),
  }),
  "a-kt": (inputs) => {
    const result = seriesResistanceTemperatureFactor(
      number(inputs, "T_C"),
      word(inputs, "cls", referenceClasses, "gp"),
    );
    return { kR: result.factorRatio, clamped: result.isClamped };
  },
  "a-can-z": (inputs) => {
    const can = canImpedance({
      diameterMetres: number(inputs, "D_mm") / 1e3,
      heightMetres: number(inputs, "L_mm") / 1e3,
      ratedVolts: number(inputs, "Vr_V"),
      capacitorClass: word(inputs, "cls", liquid),
    });
    return { Z_max: can.impedanceMaxOhms, I_rated: can.ratedRippleAmpsRms, source: can.source };
  },
  "a-expected-esr": (inputs) => {
    const esr = expectedEsr({
      capacitanceFarads: number(inputs, "C_F"),
      ratedVolts: number(inputs, "Vr_V"),
      capacitorClass: word(inputs, "cls", referenceClasses),
      frequencyHertz: number(inputs, "f_Hz"),
      temperatureCelsius: number(inputs, "T_C"),
      diameterMetres: millimetres(optionalNumber(inputs, "D_mm")),
      heightMetres: millimetres(optionalNumber(inputs, "L_mm")),
      datasheetEsrOhms: optionalNumber(inputs, "datasheet_ohm"),
    });
    return {
      low: esr.lowOhms,
      typ: esr.typicalOhms,
      high: esr.highOhms,
      source: esr.source,
      Rs20_typ: esr.seriesResistance20CelsiusOhms,
      tan_ox: esr.oxideLossRatio,
      flags: esr.flags,
    };
  },
  "a-tester": (inputs) => {
    const result = testerReading(number(inputs, "esr"), tester(inputs));
    return { reading: result.readingOhms, X: result.reactanceOhms };
  },
  "a-compensate": (inputs) => {
    const result = compensatedEsr(number(inputs, "reading"), tester(inputs), {
      meterOhms: number(inputs, "u_meter"),
      leadOhms: number(inputs, "u_lead"),
      contactOhms: number(inputs, "u_contact"),
    });
    return { esr: result.esrOhms, u: result.standardUncertaintyOhms, valid: result.isValid };
  },
};
