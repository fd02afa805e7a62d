import type { Intake, Job } from "@pale-cap/contract";

/** The editable part of a stored job. */
export function intakeOf(job: Job): Intake {
  return {
    deviceKind: job.deviceKind,
    deviceMaker: job.deviceMaker,
    deviceModel: job.deviceModel,
    deviceSerial: job.deviceSerial,
    deviceAgeYears: job.deviceAgeYears,
    complaint: job.complaint,
    symptoms: [...job.symptoms],
    symptomNote: job.symptomNote,
    priceLimitMinor: job.priceLimitMinor,
    dueOn: job.dueOn,
    customerName: job.customerName,
    customerContact: job.customerContact,
    ownersWords: job.ownersWords,
    intakeDetails: job.intakeDetails,
  };
}

/** `intakeDetails.purpose.hoursPerDay` as a person reads it. */
export function fieldName(path: string): string {
  const last =
    path
      .replace(/\[\d+\]/g, "")
      .split(".")
      .at(-1) ?? path;
  return last.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
}

/** An emptied field means unknown, and unknown is null. */
export function withoutEmpty(values: Intake): Intake {
  const entries = Object.entries(values).map(([key, value]) => [key, value === "" ? null : value]);
  return Object.fromEntries(entries) as Intake;
}
