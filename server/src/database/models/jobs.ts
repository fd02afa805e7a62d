import type { ComebackKind, IntakeDetails, JobOrigin, Realm } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface JobRow {
  id: string;
  realm: Realm;
  takesSimulated: boolean;
  number: number;
  version: number;
  personId: string | null;
  deviceKind: string;
  deviceMaker: string | null;
  deviceModel: string | null;
  deviceSerial: string | null;
  deviceAgeYears: number | null;
  complaint: string | null;
  symptoms: string[];
  symptomNote: string | null;
  priceLimitMinor: number | null;
  dueOn: string | null;
  createdAt: Date;
  handedOverAt: Date | null;
  warrantyUntil: string | null;
  handOverNote: string | null;
  intakeDetails: Partial<IntakeDetails>;
  spentMinutes: number | null;
  jobFamilyId: string | null;
  verdictSummary: string | null;
  comebackOf: string | null;
  comebackKind: ComebackKind | null;
  origin: JobOrigin | null;
}

export const jobs = (sequelize: Sequelize) =>
  defineTable<JobRow>(sequelize, "jobs", {
    id: column.key,
    realm: column.text,
    takesSimulated: column.flag,
    number: column.whole,
    version: column.whole,
    personId: column.id,
    deviceKind: column.text,
    deviceMaker: column.text,
    deviceModel: column.text,
    deviceSerial: column.text,
    deviceAgeYears: column.real,
    complaint: column.text,
    symptoms: column.texts,
    symptomNote: column.text,
    priceLimitMinor: column.whole,
    dueOn: column.day,
    createdAt: column.moment,
    handedOverAt: column.moment,
    warrantyUntil: column.day,
    handOverNote: column.text,
    intakeDetails: column.json,
    spentMinutes: column.real,
    jobFamilyId: column.id,
    verdictSummary: column.text,
    comebackOf: column.id,
    comebackKind: column.text,
    origin: column.json,
  });
