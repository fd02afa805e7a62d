import type { BehindStudy, JobDetail } from "@pale-cap/contract";

/** What units of a family have in common, by lineage: no reading, no charge, no polarity, no proof is in it. */
export interface Shared {
  readonly complaint: string;
  readonly rails: ReadonlyMap<string, { readonly name: string; readonly values: string }>;
  readonly places: ReadonlyMap<string, { readonly name: string; readonly values: string }>;
  /** What was chosen, by place. */
  readonly choices: ReadonlyMap<string, string>;
}

/** A job as its family shares it. */
export function sharedOf(detail: JobDetail, lineageOf: (id: string) => string): Shared {
  const { job, nets, positions, fittedParts, plans } = detail;
  const names = new Map(positions.map((one) => [lineageOf(one.id), one.designator]));
  return {
    complaint: JSON.stringify([job.complaint, [...job.symptoms].sort(), job.symptomNote, job.intakeDetails.topology]),
    rails: new Map(
      nets.map(({ id, version: _, boardId: __, network, ...values }) => {
        const behindNetId = network?.behindNetId ?? null;
        const linked = network && { ...network, behindNetId: behindNetId && lineageOf(behindNetId) };
        return [lineageOf(id), { name: values.name, values: JSON.stringify({ ...values, network: linked }) }] as const;
      }),
    ),
    places: new Map(
      positions.map((position) => {
        const part = fittedParts.find((one) => one.positionId === position.id && one.origin === "found");
        const { designator, kind, netId, xMetres, yMetres, pitchMetres, markedOhms, fixing, heatSource } = position;
        const values = [designator, kind, netId && lineageOf(netId), xMetres, yMetres, pitchMetres, markedOhms];
        const marking = part && [part.capacitanceFarads, part.ratedVolts, part.capacitorClass, part.series];
        return [
          lineageOf(position.id),
          { name: designator, values: JSON.stringify([...values, fixing, heatSource, marking ?? null]) },
        ] as const;
      }),
    ),
    choices: new Map(
      plans
        .map(({ positionId, cataloguePartId, isLeftEmpty, component, otherPart }) => {
          const chosen = JSON.stringify([cataloguePartId, isLeftEmpty, component ?? null, otherPart]);
          return [lineageOf(positionId), chosen] as const;
        })
        .filter(([key]) => names.has(key)),
    ),
  };
}

/** What of the study a unit does not have yet, or has otherwise. */
export function behindStudy(study: Shared, own: Shared): BehindStudy {
  const other = (of: Shared["rails"], mine: Shared["rails"]) =>
    [...of].filter(([key, { values }]) => mine.get(key)?.values !== values).map(([, { name }]) => name);
  return {
    complaint: study.complaint !== own.complaint,
    rails: other(study.rails, own.rails),
    places: other(study.places, own.places),
    choices: [...study.choices]
      .filter(([key, chosen]) => own.choices.get(key) !== chosen)
      .map(([key]) => study.places.get(key)?.name ?? ""),
  };
}
