import { type HandAct, handActSchema } from "@pale-cap/contract";
import type { Bench } from "../instruments/bench";
import { CommandError } from "../instruments/commandError";
import type { Handler, Instrument } from "../instruments/instrument";
import { madeSteps, readMadeName } from "./generate";
import { type Hands, type Lasting, practise } from "./hands";
import { practiceBoard } from "./practiceBoard";
import { type PracticeSupply, skillsOf, truthOf } from "./practiceSupply";
import { bestSteps, gently, type PolicyRun } from "./practiser";
import { supplyOf } from "./recipe";
import { recipes } from "./supplies";

const busy = "BUSY";
/** As much as a line carries comes in pieces. */
const mostPieces = 2000;

const decoded = (text: string): unknown => {
  try {
    return JSON.parse(Buffer.from(text, "base64url").toString("utf8"));
  } catch {
    throw new CommandError(-224, "That cannot be read");
  }
};

let known: readonly object[] | null = null;

/** The supplies that come with the product, each with what it exercises. */
function offered(): readonly object[] {
  known ??= recipes.map((recipe) => {
    const supply = supplyOf(recipe);
    const { name, title, difficulty } = recipe;
    return { name, title, difficulty, skills: skillsOf(supply) };
  });
  return known;
}

/**
 * Lines by which a practice job speaks to its bench: which supply lies there, what hands do to it, what happened. The truth and
 * the best way through it are told to whoever asks; whether a learner may see them is not the bench's to say.
 */
function handCommands(bench: Bench): Readonly<Record<string, Handler>> {
  let laid = 0;
  let isMaking = false;
  let best: PolicyRun | null = null;
  let pieces: string[] = [];
  let laidHands: Hands | null = null;

  const lay = (supply: PracticeSupply) => {
    laidHands = practise(bench, supply);
  };
  const begin = async (name: string) => {
    laid += 1;
    const own = laid;
    const isWanted = () => own === laid;
    best = null;
    const made = readMadeName(name);
    const recipe = recipes.find((one) => one.name === name);
    if (!made && !recipe) throw new CommandError(-224, `No such supply: ${name}`);
    if (recipe) {
      const supply = supplyOf(recipe);
      lay(supply);
      best = await gently(bestSteps(supply), isWanted);
      return;
    }
    if (!made) return;
    isMaking = true;
    bench.hands = null;
    laidHands = null;
    const found = await gently(madeSteps(made.difficulty, made.seed), isWanted).catch(() => null);
    if (!isWanted()) return;
    isMaking = false;
    if (!found) return;
    lay(found.supply);
    best = found.best;
  };
  const hands = () => {
    // Another supply was laid there by the list: nobody practises any more.
    if (!laidHands || bench.hands !== laidHands) throw new CommandError(-221, "Nobody practises on this bench");
    return laidHands;
  };

  return {
    "HAND:LAY": ({ isQuery, parameters: [name = ""] }) => {
      if (isQuery && isMaking) return busy;
      if (isQuery) return laidHands && bench.hands === laidHands ? laidHands.practice.scenario.name : "NONE";
      if (!readMadeName(name) && !recipes.some((one) => one.name === name)) {
        throw new CommandError(-224, `No such supply: ${name}`);
      }
      void begin(name).catch(() => undefined);
      return null;
    },
    "HAND:LIST": () => JSON.stringify(offered()),
    "HAND:CARD": () => {
      if (isMaking) return busy;
      const { practice } = hands();
      const { scenario, story, deviceKind, deviceModel, difficulty } = practice;
      return JSON.stringify({
        ...{ name: scenario.name, title: scenario.title, story, difficulty, deviceKind, deviceModel },
        topology: scenario.builtAs ?? null,
        mainsVoltsRms: scenario.topology === "buck" ? null : scenario.mains.voltsRms,
        board: practiceBoard(practice),
      });
    },
    "HAND:DO": ({ parameters: [text = ""] }) => {
      let act: HandAct;
      try {
        act = handActSchema.validateSync(decoded(text), { strict: true }) as HandAct;
      } catch {
        throw new CommandError(-224, "No act of a hand");
      }
      return JSON.stringify(hands().do(act));
    },
    "HAND:EVEN": () => JSON.stringify({ events: hands().happened, state: hands().state }),
    "HAND:KEEP": () => JSON.stringify(hands().lasting),
    "HAND:PUT": ({ parameters: [place = "", piece = ""] }) => {
      const n = Number(place);
      if (!Number.isInteger(n) || n < 0 || n > mostPieces) throw new CommandError(-222, "Data out of range");
      if (n === 0) pieces = [];
      pieces[n] = piece;
      return null;
    },
    "HAND:USE": () => {
      hands().restore(decoded(pieces.join("")) as Lasting);
      pieces = [];
      return null;
    },
    "HAND:TRUT": () => {
      const { practice } = hands();
      return JSON.stringify({
        bad: Object.fromEntries(truthOf(practice)),
        answer: practice.answer,
        symptoms: practice.symptoms,
      });
    },
    "HAND:BEST": () => {
      if (!best) return busy;
      return JSON.stringify({ acts: best.acts, minutes: best.minutes, chances: Object.fromEntries(best.chances) });
    },
  };
}

/** The mains source of a bench on which somebody may practise. */
export const withHands = (bench: Bench, mains: Instrument): Instrument => ({
  ...mains,
  handlers: { ...mains.handlers, ...handCommands(bench) },
});
