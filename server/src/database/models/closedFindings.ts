import type { Realm } from "@pale-cap/contract";
import type { ClosedPart } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** One place of a closed job: what stood there, what it was shown to be, and what went in. */
export interface ClosedFindingRow {
  jobId: string;
  positionId: string;
  realm: Realm;
  designator: string;
  partKind: ClosedPart["kind"];
  section: ClosedPart["section"];
  maker: string | null;
  series: string | null;
  seriesKey: string | null;
  capacitorClass: ClosedPart["capacitorClass"];
  capacitanceFarads: number | null;
  ratedVolts: number | null;
  isWarmed: boolean;
  shown: ClosedPart["shown"];
  shownBy: ClosedPart["shownBy"];
  saidProbability: number | null;
  computedVerdict: string | null;
  overruledVerdict: string | null;
  wasReplaced: boolean;
  /** Hours that it had run, by the device's age and its hours a day. */
  hours: number | null;
  /** What went in, as a person would name it; its series, where it came from and of which lot. */
  fittedLabel: string | null;
  fittedSeries: string | null;
  fittedSeriesKey: string | null;
  fittedOrigin: string | null;
  fittedLot: string | null;
  fittedCataloguePartId: string | null;
}

export const closedFindings = (sequelize: Sequelize) =>
  defineTable<ClosedFindingRow>(sequelize, "closed_findings", {
    jobId: column.key,
    positionId: column.key,
    realm: column.text,
    designator: column.text,
    partKind: column.text,
    section: column.text,
    maker: column.text,
    series: column.text,
    seriesKey: column.text,
    capacitorClass: column.text,
    capacitanceFarads: column.real,
    ratedVolts: column.real,
    isWarmed: column.flag,
    shown: column.text,
    shownBy: column.text,
    saidProbability: column.real,
    computedVerdict: column.text,
    overruledVerdict: column.text,
    wasReplaced: column.flag,
    hours: column.real,
    fittedLabel: column.text,
    fittedSeries: column.text,
    fittedSeriesKey: column.text,
    fittedOrigin: column.text,
    fittedLot: column.text,
    fittedCataloguePartId: column.id,
  });
