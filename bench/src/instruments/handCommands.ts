import { type HandAct, handActSchema } from "@pale-cap/contract";
import { madeSteps, readMadeName } from "../practice/generate";
import type { Lasting } from "../practice/hands";
import { practiceBoard } from "../practice/practiceBoard";
import { type PracticeSupply, truthOf } from "../practice/practiceSupply";
import { bestSteps, gently, type PolicyRun } from "../practice/practiser";
import { supplyOf } from "../practice/recipe";
import { recipes } from "../practice/supplies";
import type { Bench } from "./bench";
import { CommandError } from "./commandError";
import type { Handler } from "./instrument";

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

/**
 * Lines by which a practice job speaks to its bench: which supply lies there, what hands do to it, what happened. The truth and
 * the best way through it are told to whoever asks; whether a learner may see them is not the bench's to say.
 */
export function handCommands(bench: Bench): Readonly<Record<string, Handler>> {
  let laid = 0;
  let isMaking = false;
  let best: PolicyRun | null = null;
  let pieces: string[] = [];

  const lay = (supply: PracticeSupply) => {
    bench.practise(supply);
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
    const found = await gently(madeSteps(made.difficulty, made.seed), isWanted).catch(() => null);
    if (!isWanted()) return;
    isMaking = false;
    if (!found) return;
    lay(found.supply);
    best = found.best;
  };
  const hands = () => {
    if (!bench.hands) throw new CommandError(-221, "Nobody practises on this bench");
    return bench.hands;
  };

  return {
    "HAND:LAY": ({ isQuery, parameters: [name = ""] }) => {
      if (isQuery) return bench.hands?.practice.scenario.name ?? (isMaking ? busy : "NONE");
      if (!readMadeName(name) && !recipes.some((one) => one.name === name)) {
        throw new CommandError(-224, `No such supply: ${name}`);
      }
      void begin(name).catch(() => undefined);
      return null;
    },
    "HAND:LIST": () => JSON.stringify(recipes.map(({ name, title, difficulty }) => ({ name, title, difficulty }))),
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
