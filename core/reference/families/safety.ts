import { absorptionRecovery } from "../../src/discharge/absorptionRecovery";
import { discharge } from "../../src/discharge/discharge";
import { type DrainLoad, drainCourse } from "../../src/discharge/drainPath";
import { dischargeResistor } from "../../src/safety/dischargeResistor";
import { mainsInrush, stiffInrush } from "../../src/safety/inrush";
import type { FamilyAdapter } from "../adapter";
import { type Inputs, number, optionalNumber, record, word } from "../inputs";

function drainLoad(inputs: Inputs): DrainLoad {
  if (word(inputs, "load", ["resistor", "lamp"]) === "resistor") return { kind: "resistor", ohms: number(inputs, "R") };
  const lamp = record(inputs.lamp, "lamp");
  return {
    kind: "lamp",
    lamp: {
      coldOhms: number(lamp, "Rcold"),
      coefficientPerKelvin: number(lamp, "alpha"),
      ambientKelvin: number(lamp, "T0"),
      thermalResistanceKelvinPerWatt: number(lamp, "Rth"),
      heatCapacityJoulesPerKelvin: number(lamp, "Cth"),
    },
  };
}

function inrushOf(inputs: Inputs, capacitance: string, esr: string) {
  const result = mainsInrush(
    {
      mainsVoltsRms: number(inputs, "Vrms"),
      mainsHertz: number(inputs, "f"),
      sourceOhms: number(inputs, "Rs"),
      limiterOhms: number(inputs, "Rntc"),
      capacitanceFarads: number(inputs, capacitance),
      esrOhms: number(inputs, esr),
    },
    optionalNumber(inputs, "window") ?? 0.05,
  );
  return {
    peak_current: result.peakAmps,
    I2t_first_pulse: result.firstPulseAmpsSquaredSeconds,
    I2t_50ms: result.windowAmpsSquaredSeconds,
    first_pulse_ms: result.firstPulseSeconds * 1e3,
    Vc_end_of_first_pulse: result.voltsAfterFirstPulse,
    Vc_50ms: result.voltsAfterWindow,
  };
}

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
  discharge: (inputs) => {
    const course = drainCourse(
      {
        capacitanceFarads: number(inputs, "C"),
        startVolts: number(inputs, "V0"),
        esrOhms: number(inputs, "ESR"),
        bleederOhms: optionalNumber(inputs, "Rbleed"),
        load: drainLoad(inputs),
      },
      [60, 30, 10],
    );
    return {
      t_to_60V: course.secondsToTargets[0],
      t_to_30V: course.secondsToTargets[1],
      t_to_10V: course.secondsToTargets[2],
      peak_power_load: course.peakPowerWatts,
      peak_current: course.peakCurrentAmps,
      energy_load_to_10V: course.loadJoules,
      energy_bleeder_to_10V: course.bleederJoules,
      energy_stored_initial: course.storedJoules,
      T_peak: course.peakKelvin,
    };
  },
  inrush: (inputs) => ({ original: inrushOf(inputs, "C", "ESR"), enlarged: inrushOf(inputs, "C_large", "ESR_large") }),
  "e-inrush": (inputs) => {
    const result = stiffInrush({
      capacitanceFarads: number(inputs, "C_F"),
      peakVolts: number(inputs, "V_peak"),
      seriesOhms: number(inputs, "R_series"),
    });
    return { I2t: result.ampsSquaredSeconds, I_peak: result.peakAmps, E_J: result.storedJoules };
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
