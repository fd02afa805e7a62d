import { describe, expect, it } from "vitest";
import {
  type ComponentEntry,
  componentCells,
  componentDoubts,
  componentHeaders,
  componentKey,
  mapComponentHeader,
  readComponentRow,
} from "./componentRows";

const headers =
  "kind,maker,type,price,rated volts,rated amps,on ohms,gate charge coulombs,channel,tab,safety class,pitch metres";
const columns = headers.split(",").map(mapComponentHeader);
const read = (row: string) => readComponentRow(row.split(","), columns, 100);
const entry = (row: string) => {
  const found = read(row);
  if ("faults" in found) throw new Error(JSON.stringify(found.faults));
  return found.entry;
};
const faults = (row: string) => {
  const found = read(row);
  return "faults" in found ? found.faults.map((one) => `${one.column} ${one.code}`) : [];
};
const good = "transistor,Ostrel,N65-12F,1.90,650,12,0.38,30e-9,n,insulated,,";

describe("a row of other parts", () => {
  it("fills the ratings of its kind, in SI or by the unit of the cell", () => {
    expect(entry(good)).toEqual({
      ...{ kind: "transistor", maker: "Ostrel", typeNumber: "N65-12F", priceMinor: 190 },
      ratings: {
        ...{ ratedVolts: 650, ratedAmps: 12, onOhms: 0.38, gateChargeCoulombs: 30e-9 },
        ...{ channel: "n", tab: "insulated" },
      },
    });
    expect(entry("Transistor,Ostrel,N65,2,0.65 kV,12 A,380m,,,,,").ratings).toEqual({
      ...{ ratedVolts: 650, ratedAmps: 12, onOhms: 0.38 },
    });
    expect(entry("y capacitor,Marn,Y,1,,,,,,,Y2,7.5 mm").ratings).toEqual({ safetyClass: "Y2", pitchMetres: 0.0075 });
  });
  it("says everything that is wrong with it", () => {
    expect(faults("tube,Ostrel,N,1,,,,,,,,")).toEqual(["kind no_kind"]);
    expect(faults("transistor,,=N,x,many,,,,,,,")).toEqual([
      ...["maker empty", "typeNumber like_formula", "price not_a_number", "ratedVolts not_a_number"],
    ]);
    expect(faults("transistor,Ostrel,N,,650,,,,,,,")).toEqual(["price empty"]);
    expect(faults("transistor,Ostrel,N,-1,0,,,,,,,")).toEqual(["price outside", "ratedVolts outside"]);
    expect(faults(`transistor,Ostrel,${"N".repeat(41)},1,,,,,,,,`)).toEqual(["typeNumber too_long"]);
    expect(faults("y_capacitor,Marn,Y,1,,,,,,,Y5,15")).toEqual(["safetyClass not_a_word", "pitchMetres outside"]);
    expect(faults("transistor,Ostrel,N,1,,,,,,half,,")).toEqual(["tab not_a_word"]);
  });
  it("goes out as it came in, whatever the case of its name", () => {
    const one = entry(good);
    const back = readComponentRow(componentCells(one, 100).map(String), componentHeaders.map(mapComponentHeader), 100);
    expect(back).toEqual({ entry: one });
    expect(componentKey({ ...one, maker: " OSTREL" })).toBe(componentKey(one));
    expect(mapComponentHeader(" Gate_charge Coulombs")).toBe("gateChargeCoulombs");
    expect(mapComponentHeader("colour")).toBeNull();
  });
  it("is refused with a rating of another kind, or a number where a word stands", () => {
    const doubts = (ratings: object) => componentDoubts({ ...entry(good), ratings } as ComponentEntry).length;
    expect([
      doubts({ channel: "n" }),
      doubts({ ohms: 1 }),
      doubts({ channel: 1 }),
      doubts({ ratedVolts: "650" }),
    ]).toEqual([0, 1, 1, 1]);
    expect(doubts({ ratedVolts: 1e6 })).toBe(1);
  });
});
