import {
  type BulkPrediction,
  type BulkQuestion,
  ImpossibleConverterError,
  isTooWeak,
  type PredictionQuestion,
  predictBulk,
  predictRipple,
  spiceNetlist,
  sweepLoads,
} from "@pale-cap/core";
import { expose } from "comlink";

type Impossible = Pick<ImpossibleConverterError, "impossible" | "numbers">;

/** An impossible converter is an answer like another: errors lose their facts on the way out of a worker. */
function answering<T>(act: () => T): { readonly found: T } | Impossible {
  try {
    return { found: act() };
  } catch (error) {
    if (error instanceof ImpossibleConverterError) return { impossible: error.impossible, numbers: error.numbers };
    throw error;
  }
}

const worker = {
  predict: (question: PredictionQuestion) => answering(() => predictRipple(question)),
  /** null: nothing to reckon with; "too_weak": this mains cannot feed the load. */
  bulk: (question: BulkQuestion): BulkPrediction | null | "too_weak" => {
    try {
      return predictBulk(question);
    } catch (error) {
      if (isTooWeak(error)) return "too_weak";
      throw error;
    }
  },
  sweep: (question: PredictionQuestion, loads: readonly number[]) => answering(() => sweepLoads(question, loads)),
  netlist: (question: PredictionQuestion, title: string) =>
    answering(() => {
      const prediction = predictRipple(question);
      return prediction && spiceNetlist(title, prediction.described.source, prediction.states.measured.filter.network);
    }),
};

export type RippleWorker = typeof worker;
expose(worker);
