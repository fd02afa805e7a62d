import { instrumentFunctions, printWaveform } from "@pale-cap/contract";
import { sectionFacts } from "@pale-cap/core";
import { probePoints } from "../virtualSupply/probePoints";
import { voltsAt } from "../virtualSupply/waveform";
import type { Bench } from "./bench";
import { CommandError } from "./commandError";
import {
  type Handler,
  type Instrument,
  Probes,
  positiveParameter,
  printNumber,
  switchParameter,
  toDigits,
  wordHandler,
} from "./instrument";

const divisions = 10;
const sampleCount = 1000;
/** Spikes of the switching edges, as far as the bandwidth lets them through. */
const spikeRatio = 0.35;

/** Two-channel scope: AC-coupled waveforms of a net, with or without its bandwidth limit. */
export function oscilloscope(bench: Bench): Instrument {
  const first = new Probes(bench);
  const second = new Probes(bench);
  let secondsPerDivision = 5e-6;
  let isLimited = true;
  type Function = (typeof instrumentFunctions.oscilloscope)[number];
  let func: Function = "PKPK";

  function samples(probes: Probes): readonly number[] | null {
    const { points } = probes;
    if (!points) return null;
    refuseStraddling();
    const now = bench.now();
    const { supply } = bench;
    const course = supply.net(points.nodes[0], now);
    const window = secondsPerDivision * divisions;
    const { hertz } = supply.scenario.mains;
    const spike = course.switchingPeakToPeak * spikeRatio;
    const period = course.switching?.periodSeconds ?? 0;
    return Array.from({ length: sampleCount }, (_, n) => {
      const at = now + (n * window) / sampleCount;
      const edge = !isLimited && period > 0 && (at / period) % 1 < 0.03 ? spike : 0;
      const volts = voltsAt(course, at, hertz) + edge;
      return bench.noisy(volts, 0, 0.0015 + 0.002 * (course.mainsPeakToPeak + course.switchingPeakToPeak));
    });
  }

  /** Both grounds of a scope are one: a channel on each side of the barrier joins them. */
  function refuseStraddling(): void {
    const sides = [first, second].flatMap(({ points }) => {
      const net = points && bench.supply.scenario.nets.find((one) => one.name === points.nodes[0]);
      return net ? [sectionFacts[net.section].isMainsSide] : [];
    });
    if (sides.length === 2 && sides[0] !== sides[1]) {
      throw new CommandError(-221, "The channels straddle the isolation barrier");
    }
  }

  function peakToPeak(probes: Probes): number | null {
    const volts = samples(probes);
    if (!volts) return null;
    const sorted = [...volts].sort((a, b) => a - b);
    // Single samples of noise do not count.
    const [low = 0, high = 0] = [sorted[3], sorted.at(-4)];
    return toDigits(high - low, 3);
  }

  function read(what: Function): number | null {
    switch (what) {
      case "PKPK":
        return peakToPeak(first);
      case "FREQ":
        return first.points && bench.supply.operation().state === "running"
          ? toDigits(bench.noisy(bench.supply.scenario.switchingHertz, 0.002, 0), 4)
          : null;
      case "STAR": {
        const { startSeconds } = bench.supply.operation();
        return Number.isFinite(startSeconds) ? toDigits(bench.noisy(startSeconds, 0.01, 0), 3) : null;
      }
      case "HOLD": {
        const { holdUpSeconds } = bench.supply;
        return holdUpSeconds === null ? null : toDigits(bench.noisy(holdUpSeconds, 0.01, 0), 3);
      }
    }
  }

  const waveform =
    (probes: Probes): Handler =>
    () => {
      const volts = samples(probes);
      return volts ? printWaveform({ intervalSeconds: (secondsPerDivision * divisions) / sampleCount, volts }) : "NONE";
    };
  const channel = (probes: Probes) => probes.handlers["ROUT:PROB"] as Handler;
  return {
    kind: "oscilloscope",
    identity: "Pale Cap,Oscilloscope (simulated),1,1",
    handlers: {
      "ROUT:PROB": channel(first),
      "CHAN1:PROB": channel(first),
      "CHAN2:PROB": (command) => {
        const [text = ""] = command.parameters;
        if (!command.isQuery && !probePoints(bench.supply.scenario, text, "IN") && text.toUpperCase() !== "NONE") {
          throw new CommandError(-224, `No such point on this board: ${text}`);
        }
        return channel(second)(command);
      },
      "TIM:SCAL": (command) => {
        if (command.isQuery) return printNumber(secondsPerDivision);
        secondsPerDivision = Math.min(Math.max(positiveParameter(command), 1e-7), 1);
        return null;
      },
      "CHAN:BAND": (command) => {
        if (command.isQuery) return isLimited ? "ON" : "OFF";
        isLimited = switchParameter(command);
        return null;
      },
      FUNC: wordHandler(
        instrumentFunctions.oscilloscope,
        () => func,
        (word) => {
          func = word;
        },
      ),
      READ: () => printNumber(read(func)),
      "MEAS:PKPK": () => printNumber(peakToPeak(first)),
      "WAV:DATA": waveform(first),
      "WAV:DATA2": waveform(second),
    },
  };
}
