import { isBefore, type LoggedFact } from "../readings/factMoment";
import { loggedReading } from "../readings/reading";
import type { JobFacts } from "./jobFacts";

/** What was known of a job when something was logged: everything that is only ever added, as far as it came before. */
export function factsBefore(facts: JobFacts, moment: LoggedFact): JobFacts {
  const before = <T extends LoggedFact>(list: readonly T[]) => list.filter((one) => isBefore(one, moment));
  return {
    ...facts,
    readings: facts.readings.filter((reading) => isBefore(loggedReading(reading), moment)),
    chargeEvents: before(facts.chargeEvents),
    powerEvents: before(facts.powerEvents),
    ticks: before(facts.ticks),
    acts: before(facts.acts),
  };
}
