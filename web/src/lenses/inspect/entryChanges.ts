import type { BoardChange, Net, NetValues } from "@pale-cap/contract";
import { type PartEntry, type Section, sectionFacts } from "@pale-cap/core";
import { newId } from "../../api/newId";

/** Where a line of quick entry puts its parts; `question` when more than one rail could be meant. */
export interface NetChoice {
  readonly netId: string | null;
  readonly name: string | null;
  readonly isNew: boolean;
  readonly question: readonly string[] | null;
}

/** Nets of the board and those that earlier lines of the same batch make. */
export interface NetBook {
  readonly nets: readonly Pick<Net, "id" | "name" | "section">[];
  readonly changes: readonly BoardChange[];
}

export const netBook = (nets: readonly Net[]): NetBook => ({ nets, changes: [] });

/**
 * The rail a line means: by its name, or the only one of its section. A name or section that the board does not have yet
 * makes a new rail. Several rails of one section are asked back, never guessed.
 */
export function chooseNet(entry: PartEntry, book: NetBook): readonly [NetChoice, NetBook] {
  const { railName, section } = entry;
  if (railName === null && section === null) {
    return [{ netId: null, name: null, isNew: false, question: null }, book];
  }
  const fitting = book.nets.filter((net) =>
    railName === null ? net.section === section : plain(net.name) === plain(railName),
  );
  if (fitting.length > 1) {
    return [{ netId: null, name: null, isNew: false, question: fitting.map((net) => net.name) }, book];
  }
  const [net] = fitting;
  if (net) return [{ netId: net.id, name: net.name, isNew: false, question: null }, book];
  const made = newNet(railName, section ?? "output");
  return [
    { netId: made.id, name: made.values.name, isNew: true, question: null },
    {
      nets: [...book.nets, { id: made.id, name: made.values.name, section: made.values.section }],
      changes: [
        ...book.changes,
        { table: "net", operation: "insert", id: made.id, version: null, values: made.values },
      ],
    },
  ];
}

/** `12V`, `12 V` and `12 v` are the same rail. */
const plain = (name: string) => name.toLowerCase().replace(/\s/g, "");

function newNet(railName: string | null, section: Section): { readonly id: string; readonly values: NetValues } {
  const volts = railName === null ? null : /^([+−-]?)(\d+(?:[.,]\d+)?)\s*v/i.exec(railName);
  const nominalVolts = volts
    ? Number(`${volts[1] && volts[1] !== "+" ? "-" : ""}${volts[2]?.replace(",", ".")}`)
    : null;
  const rest = { fullLoadAmps: null, toleranceRatio: null, rippleLimitVolts: null, network: null, converter: null };
  return { id: newId(), values: { name: railName ?? sectionFacts[section].label, section, nominalVolts, ...rest } };
}

const gapMetres = 0.002;

/** The batch that puts the parts of one line on the board; a range stands side by side from its place on. */
export function entryChanges(
  entry: PartEntry,
  netId: string | null,
): { readonly changes: readonly BoardChange[]; readonly positionIds: readonly string[] } {
  const isCan = entry.kind === "electrolytic";
  const step = (entry.diameterMetres ?? 0.008) + gapMetres;
  const made = entry.designators.map((designator, index) => {
    const positionId = newId();
    const position: BoardChange = {
      table: "position",
      operation: "insert",
      id: positionId,
      version: null,
      values: {
        designator,
        kind: entry.kind,
        netId,
        xMetres: entry.xMetres === null ? null : entry.xMetres + index * step,
        yMetres: entry.yMetres,
        outlineWidthMetres: isCan ? null : entry.diameterMetres,
        outlineDepthMetres: isCan ? null : entry.heightMetres,
        pitchMetres: entry.pitchMetres,
        polarityMark: null,
        // The word is the stripe of the part that stands there; the board's own mark is an entry of its own.
        boardNegativeDegrees: null,
        fixing: null,
        heatSource: null,
        outlineHeightMetres: null,
        markedOhms: null,
      },
    };
    if (!isCan) return { positionId, changes: [position] };
    const part: BoardChange = {
      table: "fittedPart",
      operation: "insert",
      id: newId(),
      version: null,
      values: {
        positionId,
        capacitanceFarads: entry.capacitanceFarads,
        ratedVolts: entry.ratedVolts,
        temperatureClassCelsius: entry.temperatureClassCelsius,
        capacitorClass: entry.capacitorClass,
        diameterMetres: entry.diameterMetres,
        heightMetres: entry.heightMetres,
        stripeDegrees: entry.stripeDegrees,
        isNonPolar: entry.isNonPolar === true,
        datasheetEsrOhms: null,
        toleranceRatio: entry.toleranceRatio,
        series: entry.series,
      },
    };
    return { positionId, changes: [position, part] };
  });
  return { changes: made.flatMap((one) => one.changes), positionIds: made.map((one) => one.positionId) };
}
