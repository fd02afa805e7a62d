import type { PracticeBoard } from "@pale-cap/contract";
import type { BoardNet, BoardPosition, FittedPart, JobFacts } from "@pale-cap/core";
import { partKindOf } from "../instruments/markings";
import type { PracticeSupply } from "./practiceSupply";

/** What can be read on the board of a practice supply and on its label: nothing of its truth. */
export function practiceBoard({ scenario }: PracticeSupply): PracticeBoard {
  const { widthMillimetres, depthMillimetres, barrierMillimetres } = scenario.board;
  const chokeOf = (from: string, to: string) =>
    scenario.devices.find(
      (one) => one.kind === "choke" && Object.values(one.pins).includes(from) && Object.values(one.pins).includes(to),
    );
  return {
    board: {
      widthMetres: widthMillimetres / 1e3,
      depthMetres: depthMillimetres / 1e3,
      barrierMetres: barrierMillimetres / 1e3,
    },
    nets: scenario.nets.map((net) => {
      const choke = net.behind ? chokeOf(net.behind, net.name) : undefined;
      return {
        ...{ name: net.name, section: net.section, nominalVolts: net.nominalVolts, fullLoadAmps: net.fullLoadAmps },
        behind: net.behind ?? null,
        chokeHenrys: choke?.henrys ?? null,
        chokeOhms: choke?.ohms ?? null,
        isInRow: scenario.isDoubler === true && net.section === "bulk",
      };
    }),
    places: [
      ...scenario.capacitors.map((part) => ({
        ...{ at: part.at, kind: "electrolytic" as const, net: part.net, markedOhms: null, outline: null },
        place: metres(part.place),
        capacitor: {
          capacitanceFarads: (part.marking[0] ?? 0) / 1e6,
          ratedVolts: part.marking[1] ?? 0,
          temperatureClassCelsius: part.marking[2] ?? 105,
          capacitorClass: part.capacitorClass,
          diameterMetres: (part.can[0] ?? 0) / 1e3,
          heightMetres: (part.can[1] ?? 0) / 1e3,
          pitchMetres: (part.can[2] ?? 0) / 1e3,
        },
      })),
      ...scenario.devices.map((one) => ({
        ...{ at: one.at, kind: partKindOf[one.kind], net: one.net ?? null, capacitor: null },
        markedOhms: one.kind === "resistor" || one.kind === "ntc" ? one.ohms : null,
        outline: metres(one.outline),
        place: metres(one.place),
      })),
    ],
  };
}

const metres = ([x = 0, y = 0]: readonly number[]): readonly [number, number] => [x / 1e3, y / 1e3];

/** The same as the facts of a job on which nothing was done yet; names serve as ids. */
export function practiceFacts(supply: PracticeSupply): Pick<JobFacts, "nets" | "positions" | "fittedParts"> {
  const board = practiceBoard(supply);
  return {
    nets: board.nets.map(
      (net): BoardNet => ({
        ...{ id: net.name, name: net.name, section: net.section, nominalVolts: net.nominalVolts },
        ...{ fullLoadAmps: net.fullLoadAmps, toleranceRatio: null, rippleLimitVolts: null, converter: null },
        network:
          net.behind || net.isInRow
            ? {
                arrangement: net.isInRow ? "series" : "parallel",
                behindNetId: net.behind,
                chokeHenrys: net.chokeHenrys,
                chokeOhms: net.chokeOhms,
              }
            : null,
      }),
    ),
    positions: board.places.map(
      (one): BoardPosition => ({
        ...{ id: one.at, designator: one.at, kind: one.kind, netId: one.net, markedOhms: one.markedOhms },
        ...{ xMetres: one.place[0], yMetres: one.place[1], polarityMark: null, boardNegativeDegrees: null },
        ...{ outlineWidthMetres: one.outline?.[0] ?? null, outlineDepthMetres: one.outline?.[1] ?? null },
        ...{
          outlineHeightMetres: null,
          pitchMetres: one.capacitor?.pitchMetres ?? null,
          fixing: null,
          heatSource: null,
        },
      }),
    ),
    fittedParts: board.places.flatMap((one): FittedPart[] => {
      if (!one.capacitor) return [];
      const { pitchMetres: _, ...capacitor } = one.capacitor;
      return [
        {
          ...{ id: `part-${one.at}`, positionId: one.at, ...capacitor, stripeDegrees: 90, datasheetEsrOhms: null },
          ...{ toleranceRatio: null, series: null, origin: "found", fittedAt: null, removedAt: null },
        },
      ];
    }),
  };
}
