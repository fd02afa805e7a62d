import { OutOfRangeError } from "../../src/errors";
import type { BankCapacitor } from "../../src/incircuit/bank";
import { bankImpedance } from "../../src/incircuit/bankImpedance";
import { bankIntervals } from "../../src/incircuit/bankIntervals";
import { bankStates } from "../../src/incircuit/bankStates";
import { maskingLimit, maskingLimitOfResistances } from "../../src/incircuit/maskingLimit";
import type { FamilyAdapter } from "../adapter";
import { type Inputs, list, number, optionalNumber, record, word } from "../inputs";

function capacitors(inputs: Inputs): readonly BankCapacitor[] {
  return list(inputs, "caps").map((item) => {
    const part = record(item, "caps");
    const bank = part.bank ?? 0;
    if (bank !== 0 && bank !== 1) throw new OutOfRangeError("bank", bank, "0 or 1");
    return {
      capacitanceFarads: number(part, "C"),
      esrOhms: number(part, "esr"),
      eslHenrys: optionalNumber(part, "esl") ?? 0,
      isBehindChoke: bank === 1,
    };
  });
}

const network = (inputs: Inputs) => ({
  parallelOhms: optionalNumber(inputs, "R_p"),
  chokeHenrys: optionalNumber(inputs, "L_choke"),
  chokeOhms: optionalNumber(inputs, "R_choke") ?? 0,
  leadOhms: optionalNumber(inputs, "R_lead") ?? 0,
});

export const inCircuitFamilies: Readonly<Record<string, FamilyAdapter>> = {
  "c-enumerate": (inputs) => {
    const result = bankStates(
      capacitors(inputs),
      number(inputs, "f_Hz"),
      {
        resistanceOhms: number(inputs, "reading_re"),
        capacitanceFarads: optionalNumber(inputs, "reading_C"),
        resistanceUncertaintyRatio: number(inputs, "u_esr_rel"),
        capacitanceUncertaintyRatio: number(inputs, "u_C_rel"),
      },
      network(inputs),
    );
    return {
      n_consistent: result.consistentCount,
      P_bad: result.parts.map((part) => part.badProbability),
      verdict: result.parts.map((part) => part.verdict),
      min_bad: result.leastBad,
      max_bad: result.mostBad,
      P_all_ok: result.allInOrderProbability,
    };
  },
  "c-mask-scan": (inputs) => {
    const result = maskingLimit(
      capacitors(inputs),
      number(inputs, "k"),
      number(inputs, "f_Hz"),
      number(inputs, "tol"),
      network(inputs),
    );
    return { m_hide: result.hiddenMultiple, nominal_re: result.nominalOhms, open_ratio: result.openRatio };
  },
  "c-mask-closed": (inputs) => ({
    m_hide: maskingLimitOfResistances(
      list(inputs, "esr").map((value) => number({ value }, "value")),
      number(inputs, "k"),
      number(inputs, "tol"),
    ),
  }),
  "c-group": (inputs) => {
    const bank = bankImpedance(capacitors(inputs), number(inputs, "f_Hz"), network(inputs));
    return {
      re: bank.resistanceOhms,
      im: bank.reactanceOhms,
      mag: bank.magnitudeOhms,
      C_g: bank.capacitanceFarads,
    };
  },
  "c-interval": (inputs) => {
    const result = bankIntervals({
      typicalEsrOhms: list(inputs, "esr_typ").map((value) => number({ value }, "value")),
      readingOhms: number(inputs, "reading"),
      standardUncertaintyOhms: number(inputs, "u"),
      leadOhms: number(inputs, "R_lead"),
      parallelOhms: optionalNumber(inputs, "R_p"),
      mode: word(inputs, "mode", ["single", "any"]),
      healthyLowRatio: optionalNumber(inputs, "r_lo"),
      healthyHighRatio: optionalNumber(inputs, "r_hi"),
      wornRatio: optionalNumber(inputs, "r_worn"),
      failedRatio: optionalNumber(inputs, "r_fail"),
      coverageFactor: optionalNumber(inputs, "k"),
    });
    return {
      caps: result.parts.map((part) => ({
        verdict: part.verdict,
        m_min: part.multipleMin,
        m_max: part.multipleMax,
        hide_fault: part.hiddenFaultMultiple,
      })),
      some_above_healthy: result.isSomeAboveHealthy,
      some_above_worn: result.isSomeAboveWorn,
      some_failed: result.isSomeFailed,
      all_could_be_healthy: result.couldAllBeHealthy,
      R_all_healthy_max: result.allHealthyMaxOhms,
      R_all_worn: result.allWornOhms,
    };
  },
};
