import { sampleNet, samplePart, samplePosition, sampleStore } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import { sampleDetail } from "../../testing/sampleDetail";
import type { JobDetail } from "../jobs/jobDetail";
import { acrossBoards, onBoard, shownBoard } from "./unitBoards";

/** C1 on the supply and on the host, C2 on the host alone; a rail called alike on both. */
const detail = {
  ...sampleDetail({ fittedParts: [samplePart("C1"), samplePart("C2", { positionId: "host-C2" })] }),
  boards: [
    { id: "supply", place: 1, version: 1, name: null },
    { id: "host", place: 2, version: 1, name: "Host" },
  ],
  nets: [
    { ...sampleNet({ id: "n1", name: "12 V" }), boardId: "supply", version: 1 },
    { ...sampleNet({ id: "n2", name: "12 v" }), boardId: "host", version: 1 },
    { ...sampleNet({ id: "n3", name: "Core" }), boardId: "host", version: 1 },
  ],
  positions: [
    { ...samplePosition("C1"), boardId: "supply", version: 1 },
    { ...samplePosition("C1", { id: "host-C1" }), boardId: "host", version: 1 },
    { ...samplePosition("C2", { id: "host-C2" }), boardId: "host", version: 1 },
  ],
} as unknown as JobDetail;

describe("several boards of a unit", () => {
  it("are told apart where a name stands on two of them, and only there", () => {
    const whole = acrossBoards(detail);
    expect(whole.positions.map((one) => one.designator)).toEqual(["Board 1 C1", "Host C1", "C2"]);
    expect(whole.nets.map((one) => one.name)).toEqual(["Board 1 12 V", "Host 12 v", "Core"]);
    const alone = { ...detail, boards: detail.boards.slice(0, 1) };
    expect(acrossBoards(alone)).toBe(alone);
  });
  it("say of each store where it is", () => {
    const store = (name: string, place: object) => ({
      ...sampleStore({ name, positionId: null, netId: null }),
      ...place,
    });
    const energyStores = [
      store("Bulk", { positionId: "at-C1" }),
      store("Bank", { netId: "n3" }),
      store("Host bulk", { boardId: "host" }),
      store("Inverter", {}),
    ] as unknown as JobDetail["energyStores"];
    const names = (of: JobDetail) => acrossBoards(of).energyStores.map((one) => one.name);
    expect(names({ ...detail, energyStores })).toEqual(["Board 1 Bulk", "Host Bank", "Host bulk", "Inverter"]);
  });
  it("are drawn and edited one by one, each with its own parts under their own names", () => {
    const host = onBoard(detail, shownBoard(detail, "host"));
    expect(host.positions.map((one) => one.designator)).toEqual(["C1", "C2"]);
    expect(host.nets.map((one) => one.id)).toEqual(["n2", "n3"]);
    expect(host.fittedParts.map((one) => one.positionId)).toEqual(["host-C2"]);
    // One that is gone gives way to the first.
    expect(shownBoard(detail, "gone").id).toBe("supply");
    expect(shownBoard(detail, undefined).id).toBe("supply");
  });
});
