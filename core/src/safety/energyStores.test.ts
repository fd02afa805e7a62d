import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { notPositive, wronglyTaken } from "../../testing/refusals";
import { sampleJob, sampleNet, samplePart, samplePosition } from "../../testing/sampleJob";
import type { BoardNet, FittedPart, PartKind } from "../board/board";
import { storeKinds } from "../facts/chargeFacts";
import { assumedStoreFarads, energyStoreOffers, expectedStoreVolts } from "./energyStores";

describe("expectedStoreVolts", () => {
  it("takes the crest of the mains, doubled or halved as the store is wired", () => {
    expect(expectedStoreVolts("bridge", 230)).toBeCloseTo(325.27, 2);
    expect(expectedStoreVolts("doubler", 120)).toBeCloseTo(339.41, 2);
    expect(expectedStoreVolts("pair_half", 230)).toBeCloseTo(162.63, 2);
  });
  test.prop([fc.double({ min: 90, max: 265, noNaN: true })])("halves of a doubler make the whole", (mains) => {
    expect(2 * expectedStoreVolts("doubler_half", mains)).toBeCloseTo(expectedStoreVolts("doubler", mains), 9);
    expect(expectedStoreVolts("pfc", mains)).toBe(expectedStoreVolts("pfc", 230));
  });
  it("refuses a mains of nothing", () => {
    const of = (one: { mainsVoltsRms: number }) => expectedStoreVolts("line", one.mainsVoltsRms);
    expect(wronglyTaken(of, { mainsVoltsRms: 230 }, { mainsVoltsRms: notPositive })).toEqual([]);
  });
});

it("a store of unknown capacitance is drained as more than usual ones have", () => {
  expect(storeKinds.every((kind) => assumedStoreFarads(kind) > 0)).toBe(true);
  expect([assumedStoreFarads("bulk"), assumedStoreFarads("x_capacitor")]).toEqual([680e-6, 2.2e-6]);
});

describe("energyStoreOffers", () => {
  const bulk = sampleNet({ id: "net-bulk", section: "bulk", nominalVolts: null });
  const strong = sampleNet({ id: "net-24", name: "24 V", nominalVolts: 24 });
  it("names every bulk at the crest, and an output bank only where it holds something", () => {
    const job = sampleJob({
      nets: [bulk, strong, sampleNet()],
      positions: [
        samplePosition("C1", { netId: "net-bulk" }),
        samplePosition("C5", { netId: "net-24" }),
        samplePosition("C6", { netId: "net-24" }),
        samplePosition("C7"),
      ],
      fittedParts: [
        samplePart("C1", { capacitanceFarads: 120e-6 }),
        samplePart("C5", { capacitanceFarads: 11e-3 }),
        samplePart("C6", { capacitanceFarads: 11e-3 }),
        samplePart("C7"),
      ],
    });
    const offers = energyStoreOffers(job, 230);
    // 22 mF at 24 V hold 6.3 J; 1 mF at 12 V hold 0.07 J and count for nothing.
    expect(offers.map((one) => [one.kind, one.designators.join("+"), one.expectedVolts])).toEqual([
      ["bulk", "C1", 325],
      ["output_bank", "C5+C6", 24],
    ]);
    expect(offers[1]?.capacitanceFarads).toBeCloseTo(22e-3, 12);
  });

  const offersOf = (net: Partial<BoardNet>, parts: Partial<FittedPart>[] = [{}], kind: PartKind = "electrolytic") => {
    const job = sampleJob({
      nets: [sampleNet({ id: "one", ...net })],
      positions: parts.map((_, n) => samplePosition(`C${n}`, { netId: "one", kind })),
      fittedParts: parts.map((part, n) => samplePart(`C${n}`, part)),
    });
    return energyStoreOffers(job, 230);
  };
  it("offers each capacitor of a bulk by itself, a PFC bulk at what the boost stage makes or the rail says", () => {
    expect(offersOf({ section: "pfc", nominalVolts: null }, [{ capacitanceFarads: 1e-4 }])).toEqual([
      {
        kind: "pfc_bulk",
        designators: ["C0"],
        positionId: "at-C0",
        netId: null,
        capacitanceFarads: 1e-4,
        expectedVolts: 390,
        feed: "pfc",
      },
    ]);
    expect(offersOf({ section: "bulk", nominalVolts: 310 }, [{}, {}]).map((one) => one.expectedVolts)).toEqual([
      310, 310,
    ]);
    expect(offersOf({ section: "bulk", nominalVolts: null })[0]).toMatchObject({ kind: "bulk", feed: "bridge" });
  });
  it("offers a bank above 5 J at any voltage, above 0.05 J beyond 60 V, whichever side of zero it lies", () => {
    const at = (nominalVolts: number, joules: number) =>
      offersOf({ section: "output", nominalVolts }, [{ capacitanceFarads: (2 * joules) / nominalVolts ** 2 }]);
    const counts = [at(24, 4.99), at(24, 5.01), at(60, 4.9), at(61, 0.049), at(61, 0.051)].map((one) => one.length);
    expect(counts).toEqual([0, 1, 0, 0, 1]);
    expect(at(-24, 6)[0]).toMatchObject({ kind: "output_bank", expectedVolts: 24, feed: null, netId: "one" });
  });
  it("takes a part at its rating where the net says no voltage", () => {
    const of = (ratedVolts: number) =>
      offersOf({ section: "output", nominalVolts: null }, [{ capacitanceFarads: 1e-4, ratedVolts }]);
    expect(of(50)).toEqual([]);
    expect(of(63)[0]).toMatchObject({ kind: "output_bank", expectedVolts: 63 });
  });
  it("offers two in series each by itself, at half of what the net says or the whole crest", () => {
    const network = { arrangement: "series", behindNetId: null, chokeHenrys: null, chokeOhms: null } as const;
    const halves = (nominalVolts: number | null) =>
      offersOf({ section: "bulk", nominalVolts, network }, [{}, {}]).map((one) => [
        one.kind,
        one.positionId,
        one.expectedVolts,
      ]);
    expect(halves(340)).toEqual([
      ["series_half", "at-C0", 170],
      ["series_half", "at-C1", 170],
    ]);
    expect(halves(null).map((one) => one[2])).toEqual([325, 325]);
  });
  it("offers an X capacitor that holds enough, and no small one", () => {
    const at = (capacitanceFarads: number) => {
      const job = sampleJob({
        positions: [samplePosition("CX1", { kind: "film", netId: null })],
        fittedParts: [samplePart("CX1", { capacitanceFarads, ratedVolts: 310 })],
      });
      return energyStoreOffers(job, 230).map((one) => [one.kind, one.expectedVolts]);
    };
    expect(at(0.47e-6)).toEqual([]);
    expect(at(2.2e-6)).toEqual([["x_capacitor", 325]]);
  });
  it("offers nothing of a net without electrolytics, of a bank of unknown size, or of other parts on it", () => {
    expect(offersOf({ section: "bulk" }, [])).toEqual([]);
    expect(offersOf({ section: "bulk" }, [{}], "film")).toEqual([]);
    expect(offersOf({ section: "output", nominalVolts: 200 }, [{ capacitanceFarads: null }])).toEqual([]);
  });
  it("takes the part that sits there now", () => {
    const job = sampleJob({
      nets: [sampleNet({ id: "one", section: "bulk" })],
      positions: [samplePosition("C0", { netId: "one" })],
      fittedParts: [
        samplePart("C0", { capacitanceFarads: 1e-4, removedAt: "2026-11-23T10:00:00Z" }),
        samplePart("C0", { id: "new", origin: "replacement", capacitanceFarads: 2e-4 }),
      ],
    });
    expect(energyStoreOffers(job, 230)[0]?.capacitanceFarads).toBe(2e-4);
    // A place that was emptied holds nothing.
    expect(energyStoreOffers({ ...job, fittedParts: job.fittedParts.slice(0, 1) }, 230)).toEqual([]);
    expect(energyStoreOffers({ ...job, fittedParts: [] }, 230)[0]?.capacitanceFarads).toBeNull();
  });
});
