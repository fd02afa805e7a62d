import { absorptionRecovery } from "../../src/safety/absorptionRecovery";
import { discharge } from "../../src/safety/discharge";
import { dischargeResistor } from "../../src/safety/dischargeResistor";
import type { FamilyAdapter } from "../families";
import { number, optionalNumber } from "../inputs";

export const safetyFamilies: Readonly<Record<string, FamilyAdapter>> = {
  "f-discharge": (inputs) => {
    const result = discharge({
      capacitanceFarads: number(inputs, "C_F"),
      startVolts: number(inputs, "V0"),
      targetVolts: number(inputs, "Vt"),
      resistanceOhms: number(inputs, "R"),
    });
    return {
      E_J: result.storedJoules,
      E_removed_J: result.removedJoules,
      t_s: result.durationSeconds,
      P_peak_W: result.peakPowerWatts,
      I_peak_A: result.peakCurrentAmps,
      tau_s: result.timeConstantSeconds,
      state: result.hazard,
    };
  },
  "f-resistor": (inputs) => {
    const chain = dischargeResistor({
      capacitanceFarads: number(inputs, "C_F"),
      startVolts: number(inputs, "V0"),
      targetVolts: number(inputs, "Vt"),
      longestSeconds: number(inputs, "t_max_s"),
    });
    return {
      found: chain !== null,
      n: chain?.count ?? null,
      part: chain?.bodyName ?? null,
      R_each: chain?.eachOhms ?? null,
      R_total: chain?.totalOhms ?? null,
      t_s: chain?.durationSeconds ?? null,
      P_peak_each: chain?.peakPowerEachWatts ?? null,
      V_each: chain?.voltsEach ?? null,
      E_each: chain?.energyEachJoules ?? null,
    };
  },
  "f-recovery": (inputs) => {
    const result = absorptionRecovery({
      startVolts: number(inputs, "V0"),
      remainingVolts: number(inputs, "V_after"),
      lowRatio: optionalNumber(inputs, "da_low"),
      highRatio: optionalNumber(inputs, "da_high"),
    });
    return {
      V_low: result.lowVolts,
      V_high: result.highVolts,
      redischarge: result.mustDrainAgain,
      above_elv: result.mayExceedTouchLimit,
    };
  },
};
