import type { HandAct, PracticeResult, Told } from "@pale-cap/contract";
import type { SkillTrials } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface PracticeSupplyRow {
  jobId: string;
  supply: string;
  title: string;
  story: string;
  difficulty: number;
  listId: string | null;
  personId: string | null;
  /** null once it has ended. */
  benchId: string | null;
  begunAt: Date;
  /** How it was left, as its bench says. */
  lasting: object | null;
}

export const practiceSupplies = (sequelize: Sequelize) =>
  defineTable<PracticeSupplyRow>(sequelize, "practice_supplies", {
    jobId: column.key,
    supply: column.text,
    title: column.text,
    story: column.text,
    difficulty: column.whole,
    listId: column.id,
    personId: column.id,
    benchId: column.id,
    begunAt: column.moment,
    lasting: column.json,
  });

/** Append-only: what hands did, and the hints that were taken. */
export interface PracticeActDbRow {
  id: string;
  jobId: string;
  act: HandAct | null;
  hintLevel: number | null;
  told: readonly Told[];
  minutes: number;
  at: Date;
  personId: string | null;
  sequence: number;
}

export const practiceActs = (sequelize: Sequelize) =>
  defineTable<PracticeActDbRow>(sequelize, "practice_acts", {
    id: column.key,
    jobId: column.id,
    act: column.json,
    hintLevel: column.whole,
    told: column.json,
    minutes: column.real,
    at: column.moment,
    personId: column.id,
    sequence: column.count,
  });

/** Append-only: what came of it on the bench. */
export interface PracticeEventRow {
  jobId: string;
  number: number;
  code: string;
  atName: string | null;
  volts: number | null;
  joules: number | null;
  benchSeconds: number;
  sequence: number;
}

export const practiceEvents = (sequelize: Sequelize) =>
  defineTable<PracticeEventRow>(sequelize, "practice_events", {
    jobId: column.key,
    number: column.wholeKey,
    code: column.text,
    atName: column.text,
    volts: column.real,
    joules: column.real,
    benchSeconds: column.real,
    sequence: column.count,
  });

/** Append-only: what it came to. */
export interface PracticeResultRow {
  jobId: string;
  result: Omit<PracticeResult, "endedAt">;
  skills: SkillTrials;
  total: number;
  isPassed: boolean;
  isFatal: boolean;
  minutes: number;
  bestMinutes: number;
  endedAt: Date;
  personId: string | null;
}

export const practiceResults = (sequelize: Sequelize) =>
  defineTable<PracticeResultRow>(sequelize, "practice_results", {
    jobId: column.key,
    result: column.json,
    skills: column.json,
    total: column.real,
    isPassed: column.flag,
    isFatal: column.flag,
    minutes: column.real,
    bestMinutes: column.real,
    endedAt: column.moment,
    personId: column.id,
  });

export interface PracticeListRow {
  id: string;
  name: string;
  passMark: number;
  supplies: string[];
  madeAt: Date;
  personId: string | null;
  isRemoved: boolean;
}

export const practiceLists = (sequelize: Sequelize) =>
  defineTable<PracticeListRow>(sequelize, "practice_lists", {
    id: column.key,
    name: column.text,
    passMark: column.real,
    supplies: column.texts,
    madeAt: column.moment,
    personId: column.id,
    isRemoved: column.flag,
  });
