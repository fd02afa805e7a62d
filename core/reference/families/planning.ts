import { type CanPose, canFit, type Obstacle } from "../../src/board/canFit";
import { compareStrategies, type StrategyPart } from "../../src/economics/repairStrategy";
import { OutOfRangeError } from "../../src/errors";
import { chooseBank } from "../../src/replacement/bankChoice";
import { esrWindow, isWithinEsrWindow } from "../../src/replacement/esrWindow";
import { largestRippleEsr, type RippleShape, rippleEsrSchools } from "../../src/ripple/rippleEsr";
import { type SupplierOffer, splitOrder } from "../../src/stock/orderSplit";
import { receiveLot } from "../../src/stock/receiveLot";
import { reorder } from "../../src/stock/reorder";
import type { FamilyAdapter } from "../adapter";
import { type Inputs, list, number, optionalNumber, record, word } from "../inputs";

const name = (inputs: Inputs, key: string): string => {
  const value = inputs[key];
  if (typeof value !== "string" || value === "") throw new OutOfRangeError(key, value, "a name");
  return value;
};
const flag = (inputs: Inputs, key: string, fallback: boolean): boolean => {
  const value = inputs[key] ?? fallback;
  if (typeof value !== "boolean") throw new OutOfRangeError(key, value, "true or false");
  return value;
};
const wholeNumber = (value: number, key: string): number => {
  if (!Number.isInteger(value) || value < 0) throw new OutOfRangeError(key, value, "whole, at least 0");
  return value;
};
const heating = (value: unknown) => {
  const school = value ?? "split";
  if (school === 5 || school === 10 || school === "split") return school;
  throw new OutOfRangeError("A", value, "5, 10 or split");
};
const metres = (inputs: Inputs, key: string) => number(inputs, key) / 1e3;
const optionalMetres = (inputs: Inputs, key: string) => {
  const value = optionalNumber(inputs, key);
  return value === null ? null : value / 1e3;
};
const millimetres = (value: number | null) => (value === null ? null : value * 1e3);

function shape(inputs: Inputs): RippleShape {
  const kind = word(inputs, "topology", ["buck", "forward", "flyback"]);
  return kind === "flyback"
    ? { kind, peakAmps: number(inputs, "Ipk_A"), fallRatio: number(inputs, "d2") }
    : { kind: "choke", swingAmps: number(inputs, "dI_A"), dutyRatio: number(inputs, "D") };
}
const ripple = (inputs: Inputs) => ({
  shape: shape(inputs),
  capacitanceFarads: number(inputs, "C_F"),
  switchingHertz: number(inputs, "f_Hz"),
  rippleLimitVolts: number(inputs, "ripple_max_V"),
});
const school = (inputs: Inputs) => word(inputs, "school", rippleEsrSchools, "exact");

function obstacle(value: unknown): Obstacle {
  const row = record(value, "obstacles");
  const heights = { z0: metres(row, "z0"), z1: metres(row, "z1") };
  return word(row, "kind", ["circle", "rect"]) === "circle"
    ? { kind: "circle", x: metres(row, "x"), y: metres(row, "y"), diameter: metres(row, "d"), ...heights }
    : {
        ...{ kind: "rectangle", x0: metres(row, "x0"), y0: metres(row, "y0") },
        ...{ x1: metres(row, "x1"), y1: metres(row, "y1"), ...heights },
      };
}
const optionalList = (inputs: Inputs, key: string) => (inputs[key] == null ? [] : list(inputs, key));

function pose(inputs: Inputs): CanPose {
  return word(inputs, "mode", ["upright", "laid"]) === "upright"
    ? { mode: "upright", liftMetres: optionalMetres(inputs, "lift_mm") ?? 0 }
    : {
        mode: "laid",
        thetaDegrees: number(inputs, "theta_deg"),
        bendMetres: metres(inputs, "bend_mm"),
        gapMetres: optionalMetres(inputs, "gap_mm") ?? 0,
      };
}

function strategyPart(value: unknown): StrategyPart {
  const row = record(value, "caps");
  return {
    group: name(row, "group"),
    rail: name(row, "rail"),
    series: name(row, "series"),
    etaHours: number(row, "eta_h"),
    beta: number(row, "beta"),
    ageHours: number(row, "age_h"),
    hasFailed: flag(row, "failed", false),
    newEtaHours: number(row, "eta_new_h"),
    newBeta: number(row, "beta_new"),
    partCost: number(row, "part_cost"),
    minutes: number(row, "minutes"),
  };
}

function offer(value: unknown): SupplierOffer {
  const row = record(value, "offers");
  const breaks = list(row, "breaks").map((one) => {
    if (!Array.isArray(one)) throw new OutOfRangeError("breaks", one, "pairs");
    const pair = { from: one[0], unit: one[1] };
    return [number(pair, "from"), number(pair, "unit")] as const;
  });
  return { breaks, stock: optionalNumber(row, "stock"), days: optionalNumber(row, "days") };
}

export const planningFamilies: Readonly<Record<string, FamilyAdapter>> = {
  "g-ripple-esr": (inputs) => {
    const found = largestRippleEsr(ripple(inputs));
    return {
      pp_C_V: found.capacitiveVolts,
      esr_exact: found.exactOhms,
      esr_bound: found.boundOhms,
      esr_rule: found.ruleOhms,
    };
  },
  "g-esr-window": (inputs) => {
    const found = esrWindow({
      ...ripple(inputs),
      old: { esrOhms: number(inputs, "esr_old"), capacitanceFarads: number(inputs, "C_old") },
      leastZeroRatio: optionalNumber(inputs, "ratio_lo"),
      mostZeroRatio: optionalNumber(inputs, "ratio_hi"),
      school: school(inputs),
    });
    const own = optionalNumber(inputs, "esr_new");
    return {
      esr_min: found.leastOhms,
      esr_max_loop: found.mostByLoopOhms,
      esr_max_ripple: found.mostByRippleOhms,
      esr_max: found.mostOhms,
      empty: found.isEmpty,
      upper_by: found.upperBy,
      inside: own === null ? null : isWithinEsrWindow(found, own),
    };
  },
  "g-bank-choice": (inputs) => {
    const candidates = list(inputs, "catalogue").map((value) => {
      const row = record(value, "catalogue");
      const stock = optionalNumber(row, "stock");
      return {
        id: name(row, "id"),
        capacitanceFarads: number(row, "C"),
        esrOhms: number(row, "esr"),
        eslHenrys: optionalNumber(row, "esl") ?? 0,
        ratedVolts: number(row, "Vr"),
        temperatureClassCelsius: number(row, "T0_C"),
        ratedLifeHours: number(row, "L0_h"),
        ratedRippleAmpsRms: number(row, "Ir"),
        diameterMetres: metres(row, "D_mm"),
        heightMetres: metres(row, "L_mm"),
        pitchMetres: metres(row, "pitch_mm"),
        priceMinor: wholeNumber(number(row, "price_ct"), "price_ct"),
        count: stock === null ? null : wholeNumber(stock, "stock"),
      };
    });
    const found = chooseBank({
      candidates,
      places: list(inputs, "places").map((value) => {
        const row = record(value, "places");
        return {
          diameterMaxMetres: metres(row, "D_max_mm"),
          heightMaxMetres: metres(row, "H_max_mm"),
          pitchMetres: optionalMetres(row, "pitch_mm"),
          mayStayEmpty: flag(row, "may_empty", false),
        };
      }),
      capacitanceMinFarads: number(inputs, "C_min"),
      capacitanceMaxFarads: optionalNumber(inputs, "C_max"),
      leastRatedVolts: number(inputs, "V_min"),
      leastTemperatureClassCelsius: number(inputs, "T_min_C"),
      frequencyHertz: number(inputs, "f_Hz"),
      rippleAmpsRms: number(inputs, "I_A"),
      ambientCelsius: number(inputs, "Ta_C"),
      ratedCoreRiseKelvin: number(inputs, "dT0_K"),
      school: heating(inputs.A),
      esrMaxOhms: optionalNumber(inputs, "esr_max"),
      mostLoadRatio: number(inputs, "load_max"),
      leastLifeHours: number(inputs, "life_min_h"),
      mode: word(inputs, "mode", ["life", "price"]),
    });
    const { best } = found;
    return {
      found: best !== null,
      ids: best?.ids ?? null,
      C_total: best?.capacitanceFarads ?? null,
      re_Z: best?.esrOhms ?? null,
      worst_life_h: best?.worstLifeHours ?? null,
      max_load: best?.mostLoadRatio ?? null,
      price_ct: best?.priceMinor ?? null,
      n_parts: best?.partCount ?? null,
      n_feasible: found.feasibleCount,
      n_kits: found.kitCount,
    };
  },
  "g-fit": (inputs) => {
    const found = canFit({
      pose: pose(inputs),
      diameterMetres: metres(inputs, "D_mm"),
      heightMetres: metres(inputs, "L_mm"),
      xMetres: metres(inputs, "x_mm"),
      yMetres: metres(inputs, "y_mm"),
      lidMetres: optionalMetres(inputs, "lid_mm"),
      lowLids: optionalList(inputs, "zones").map((value) => {
        const row = record(value, "zones");
        return {
          ...{ x0: metres(row, "x0"), y0: metres(row, "y0"), x1: metres(row, "x1"), y1: metres(row, "y1") },
          heightMetres: metres(row, "h_mm"),
        };
      }),
      obstacles: optionalList(inputs, "obstacles").map(obstacle),
      clearanceMetres: optionalMetres(inputs, "clear_mm"),
      lidClearanceMetres: optionalMetres(inputs, "clear_lid_mm"),
    });
    return {
      fits: found.fits,
      clearance_mm: millimetres(found.clearanceMetres),
      nearest: found.nearest,
      headroom_mm: millimetres(found.headroomMetres),
      ceiling_mm: millimetres(found.ceilingMetres),
      top_mm: millimetres(found.topMetres),
    };
  },
  "h-strategy": (inputs) => {
    const swap = inputs.swap == null ? null : record(inputs.swap, "swap");
    const found = compareStrategies({
      parts: list(inputs, "caps").map(strategyPart),
      warrantyHours: number(inputs, "W_h"),
      workFailureRatio: optionalNumber(inputs, "q_work"),
      hasFrailty: flag(inputs, "frailty", true),
      ratePerHour: number(inputs, "rate_per_h"),
      fixedMinutes: number(inputs, "fixed_minutes"),
      returnCost: number(inputs, "return_cost"),
      swap: swap && {
        cost: number(swap, "price"),
        minutes: number(swap, "minutes"),
        returnProbability: number(swap, "p_return"),
      },
    });
    const by = <T>(pick: (row: (typeof found.rows)[number]) => T) =>
      Object.fromEntries(
        ["failed_only", "same_rail_series", "every", "swap"].map((one) => {
          const row = found.rows.find(({ strategy }) => strategy === one);
          return [one, row ? pick(row) : null];
        }),
      );
    return {
      cost: by((row) => row.expectedCost),
      fixed: by((row) => row.fixedCost),
      P: by((row) => row.returnProbability),
      n: by((row) => row.replaced?.length ?? null),
      winner: found.winner,
      runner_up: found.runnerUp,
      break_even_return_cost: found.breakEvenReturnCost,
    };
  },
  "l-reorder": (inputs) => {
    const kind = word(inputs, "rule", ["eoq", "newsvendor"]);
    const found = reorder({
      units: number(inputs, "units"),
      days: number(inputs, "days"),
      leadDays: number(inputs, "lead_days"),
      service: optionalNumber(inputs, "service"),
      rule:
        kind === "eoq"
          ? { kind, orderCost: number(inputs, "order_cost"), holdCostPerYear: number(inputs, "hold_cost_year") }
          : {
              kind,
              underCost: number(inputs, "under_cost"),
              overCost: number(inputs, "over_cost"),
              coverDays: number(inputs, "cover_days"),
            },
      leastOrder: optionalNumber(inputs, "moq"),
      packSize: optionalNumber(inputs, "pack"),
      position: optionalNumber(inputs, "position"),
      priorUnits: optionalNumber(inputs, "a0"),
      priorDays: optionalNumber(inputs, "b0_days"),
    });
    return {
      rate_per_day: found.ratePerDay,
      lead_mean: found.meanOverLead,
      reorder_point: found.reorderPoint,
      P_stockout: found.stockoutProbability,
      safety_stock: found.safetyStock,
      annual_demand: found.annualDemand,
      order_qty: found.orderCount,
      should_order: found.shouldOrder,
    };
  },
  "l-order-split": (inputs) => {
    const items = list(inputs, "items").map((value) => {
      const row = record(value, "items");
      return { id: name(row, "id"), count: number(row, "qty") };
    });
    const suppliers = list(inputs, "suppliers").map((value) => {
      const row = record(value, "suppliers");
      return {
        id: name(row, "id"),
        shippingMinor: number(row, "shipping_ct"),
        freeFromMinor: optionalNumber(row, "free_from_ct"),
        days: number(row, "days"),
        offers: new Map(Object.entries(record(row.offers, "offers")).map(([id, one]) => [id, offer(one)])),
      };
    });
    const found = splitOrder(items, suppliers, optionalNumber(inputs, "need_days"));
    return {
      found: found.lines !== null,
      assign: found.lines?.map((one) => one.supplierId) ?? null,
      qty: found.lines?.map((one) => one.count) ?? null,
      goods_ct: found.goodsMinor,
      shipping_ct: found.shippingMinor,
      total_ct: found.totalMinor,
      days: found.days,
      n_suppliers: found.supplierCount,
      n_feasible: found.feasibleCount,
      missing: found.missingIds,
    };
  },
  "l-receive": (inputs) => {
    const found = receiveLot({
      count: number(inputs, "n"),
      measuredCount: number(inputs, "k"),
      badCount: number(inputs, "d"),
      allowedBadRatio: number(inputs, "x"),
      priorBad: optionalNumber(inputs, "a0"),
      priorGood: optionalNumber(inputs, "b0"),
      acceptBelow: optionalNumber(inputs, "p_accept"),
      rejectFrom: optionalNumber(inputs, "p_reject"),
    });
    return {
      P_gt: found.tooManyProbability,
      mean_bad_share: found.meanBadRatio,
      limit_count: found.allowedCount,
      decision: found.decision,
      more: found.moreCount,
    };
  },
};
