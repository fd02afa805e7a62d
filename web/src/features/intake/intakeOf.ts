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
