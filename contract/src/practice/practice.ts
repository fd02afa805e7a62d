import type { Debrief, DeviceKind, PracticeSkill, SkillState, Topology } from "@pale-cap/core";
import type { InferType } from "yup";
import { array, finiteNumber, idField, nullableId, number, strictObject, textField } from "../fields/fields";
import { type BenchEvent, type HandAct, type HandsState, handActSchema, type PracticeBoard, type Told } from "./hands";

/** A supply that comes with the product. */
export interface OfferedPractice {
  readonly name: string;
  readonly title: string;
  readonly difficulty: number;
  readonly skills: readonly PracticeSkill[];
}

/** Supplies made by chance have names of their own: how hard, and a number. */
export const madeSupplyName = (difficulty: number, seed: number) => `made-${difficulty}-${seed}`;

/** What the bench tells of a supply to whoever begins it. */
export interface PracticeSupplyCard {
  readonly name: string;
  readonly title: string;
  readonly story: string;
  readonly difficulty: number;
  readonly deviceKind: DeviceKind;
  readonly deviceModel: string;
  readonly topology: Topology | null;
  /** null: fed by an adapter. */
  readonly mainsVoltsRms: number | null;
  readonly board: PracticeBoard;
}

export const newPracticeSchema = strictObject({
  id: idField(),
  supply: textField(40).matches(/^[a-z0-9-]+$/),
  listId: nullableId(),
  personId: nullableId(),
});
export type NewPractice = InferType<typeof newPracticeSchema>;

export const practiceActSchema = strictObject({ id: idField(), act: handActSchema.required(), personId: nullableId() });
export interface NewPracticeAct {
  readonly id: string;
  readonly act: HandAct;
  readonly personId: string | null;
}

/** The three steps of help, each with its price. */
export const hintLevels = [1, 2, 3] as const;
export const practiceHintSchema = strictObject({
  id: idField(),
  level: number()
    .integer()
    .oneOf([...hintLevels])
    .required(),
  personId: nullableId(),
});
export type NewPracticeHint = InferType<typeof practiceHintSchema>;

/** The last word: of each part, and of what is around the supply, how likely it is bad. */
export const practiceEndSchema = strictObject({
  id: idField(),
  answer: array()
    .of(strictObject({ at: textField(40), badProbability: finiteNumber().min(0).max(1).required() }).required())
    .min(1)
    .max(200)
    .required(),
  personId: nullableId(),
});
export type PracticeEnd = InferType<typeof practiceEndSchema>;

/** One act as it is kept. */
export interface PracticeActRow {
  readonly id: string;
  readonly sequence: number;
  readonly act: HandAct | null;
  readonly hintLevel: number | null;
  readonly told: readonly Told[];
  readonly minutes: number;
  readonly at: string;
}

/** A supply that was ended: what it came to. The truth is told with it and not before. */
export interface PracticeResult {
  readonly debrief: Debrief;
  readonly answer: string;
  readonly bad: Readonly<Record<string, boolean>>;
  /** The application's own way through it. */
  readonly best: readonly BestAct[];
  readonly endedAt: string;
}

/** One act of the application's own way. */
export interface BestAct {
  readonly what: "hands" | "reading";
  readonly kind: string;
  readonly at: string | null;
  readonly terminals: string | null;
  readonly circuitState: "in_circuit" | "lead_lifted" | "out" | null;
  readonly value: number | null;
  readonly minutes: number;
  readonly bits: number;
}

/** A practice job's own side: its supply, what was done to it, and its end. */
export interface PracticeState {
  readonly jobId: string;
  readonly supply: string;
  readonly title: string;
  readonly story: string;
  readonly difficulty: number;
  readonly personId: string | null;
  readonly listId: string | null;
  readonly benchId: string | null;
  readonly begunAt: string;
  readonly acts: readonly PracticeActRow[];
  readonly events: readonly BenchEvent[];
  /** How things stand on the simulated bench; null: it does not answer. */
  readonly state: HandsState | null;
  readonly result: PracticeResult | null;
}

/** A set of supplies that somebody has to pass. */
export const practiceListSchema = strictObject({
  id: idField(),
  name: textField(60),
  passMark: finiteNumber().min(0).max(100).required(),
  supplies: array()
    .of(textField(40).matches(/^[a-z0-9-]+$/))
    .min(1)
    .max(40)
    .required(),
  personId: nullableId(),
});
export type PracticeList = Omit<InferType<typeof practiceListSchema>, "personId">;

/** One ended or open supply in a line. */
export interface PracticeLine {
  readonly jobId: string;
  readonly supply: string;
  readonly title: string;
  readonly difficulty: number;
  readonly personId: string | null;
  readonly listId: string | null;
  readonly begunAt: string;
  readonly endedAt: string | null;
  readonly total: number | null;
  readonly isPassed: boolean | null;
  readonly isFatal: boolean | null;
  readonly minutes: number | null;
  readonly bestMinutes: number | null;
}

/** The practice screen: what there is, what one person did, and where the doubt about that person is largest. */
export interface PracticePage {
  /** null: the simulated bench does not answer. */
  readonly offered: readonly OfferedPractice[] | null;
  readonly lines: readonly PracticeLine[];
  readonly skills: readonly SkillState[];
  /** The same after each supply that was ended, in their order. */
  readonly course: readonly (readonly SkillState[])[];
  /** Name of the supply that is proposed next. */
  readonly next: string | null;
  readonly lists: readonly PracticeList[];
}

/** What everybody did of a list: whose supplies passed. */
export interface PracticeListPage {
  readonly list: PracticeList;
  readonly people: readonly {
    readonly personId: string | null;
    readonly passed: readonly string[];
    readonly tried: readonly string[];
    readonly isPassed: boolean;
  }[];
}
