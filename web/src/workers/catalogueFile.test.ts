import { mapHeader } from "@pale-cap/core";
import { describe, expect, it } from "vitest";
import { decodeFile, type FileLook, lookAt, parseRows, readRows } from "./catalogueFile";

const heading = "Maker;Series;Order code;Class;C (uF);V;T;D mm;L mm;Pitch;ESR mohm;Ripple mA;Life h;Price";
const line = (code: string, price = "0,42") => `Kelpin;Tern;${code};lowz;470;25;105;10;16;5;46;1190;4000;${price}`;
const looked = (text: string) => {
  const { rows, delimiter } = parseRows(text);
  return { rows, look: lookAt(rows, delimiter, "utf-8") };
};
const go = () => Promise.resolve(true);

describe("a catalogue file", () => {
  it("is read in the Unicode that its first bytes say", () => {
    const text = "maker;µF;Ω";
    const utf16 = (isLittle: boolean) => {
      const bytes = new Uint8Array(2 + 2 * text.length);
      const view = new DataView(bytes.buffer);
      view.setUint16(0, 0xfeff, isLittle);
      for (let n = 0; n < text.length; n++) view.setUint16(2 + 2 * n, text.charCodeAt(n), isLittle);
      return bytes;
    };
    const utf8 = new TextEncoder().encode(text);
    expect(decodeFile(utf16(true))).toEqual({ text, encoding: "utf-16le" });
    expect(decodeFile(utf16(false))).toEqual({ text, encoding: "utf-16be" });
    expect(decodeFile(new Uint8Array([0xef, 0xbb, 0xbf, ...utf8])).text).toBe(text);
    expect(decodeFile(utf8)).toEqual({ text, encoding: "utf-8" });
    expect(decodeFile(new Uint8Array([0x43, 0xb5, 0x46]))).toEqual({ text: "CµF", encoding: "windows-1252" });
  });
  it("tells its own separator and decimal mark", () => {
    const { look } = looked(`${heading}\n${line("A")}\n\n${line("B")}\n`);
    expect(look).toMatchObject({ delimiter: ";", decimalMark: ",", rowCount: 2 });
    expect((looked("a,b,c,d\n1,2.5,3,4").look as FileLook).decimalMark).toBe(".");
    expect(looked(heading).look).toBe("empty");
    expect(looked("hello\nworld").look).toBe("no_columns");
  });
  it("is refused beyond the rows that one import takes", () => {
    const rows = [["a", "b", "c"], ...Array.from({ length: 200_001 }, () => ["1", "2", "3"])];
    expect(lookAt(rows, ",", "utf-8")).toBe("too_many_rows");
    expect(lookAt(rows.slice(0, -1), ",", "utf-8")).toMatchObject({ rowCount: 200_000 });
  });
  it("says of each row that cannot be taken what is wrong with it, in the numbers of a table program", async () => {
    const { rows } = looked(`${heading}\n${line("A")}\n${line("B", "lots")}\n${line("a")}\n`);
    const mapping = { columns: (rows[0] ?? []).map(mapHeader), decimalMark: ",", minorPerUnit: 100 } as const;
    const read = await readRows(rows, mapping, go);
    expect(read?.entries.map((one) => [one.orderCode, one.priceMinor])).toEqual([["A", 42]]);
    expect(read?.bad).toMatchObject([
      { row: 3, faults: [{ column: "price", code: "not_a_number", text: "lots" }] },
      { row: 4, faults: [{ column: "orderCode", code: "doubled", otherRow: 2 }] },
    ]);
  });
  it("can be stopped, and tells how far it is", async () => {
    const rows = [["x"], ...Array.from({ length: 2500 }, () => ["y"])];
    const told: number[] = [];
    const mapping = { columns: [null], decimalMark: ".", minorPerUnit: 100 } as const;
    const stop = (count: number) => Promise.resolve(told.push(count) < 2);
    expect(await readRows(rows, mapping, stop)).toBeNull();
    expect(told).toEqual([1000, 2000]);
    expect((await readRows(rows, mapping, go))?.badCount).toBe(2500);
  });
});
