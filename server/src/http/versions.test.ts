import { describe, expect, it, vi } from "vitest";
import type { Rows } from "../database/rows";
import { HttpProblem } from "./problems";
import { updateFromVersion } from "./versions";

interface Row {
  id: string;
  version: number;
  jobId: string;
  name: string;
}

/** Rows with one stored, or none. */
function rowsWith(stored: Row | null) {
  const locked = vi.fn(async () => stored);
  const update = vi.fn(async () => undefined);
  return { rows: { locked, update } as unknown as Rows<Row>, locked, update };
}
const stored: Row = { id: "a", version: 3, jobId: "j", name: "old" };

describe("an edit from a version", () => {
  it("writes where the row still has it, and raises it", async () => {
    const { rows, locked, update } = rowsWith(stored);
    await updateFromVersion(rows, { id: "a", version: 3, where: { jobId: "j" } }, { name: "new" });
    const where = { id: "a", jobId: "j" };
    expect(locked).toHaveBeenCalledWith(where);
    expect(update).toHaveBeenCalledWith({ name: "new", version: 4 }, where);
  });
  it("is never taken to another row by what else must hold", async () => {
    const { rows, locked } = rowsWith(stored);
    await updateFromVersion(rows, { id: "a", version: 3, where: { id: "b" } }, {});
    expect(locked).toHaveBeenCalledWith({ id: "a" });
  });
  it("is refused with the row as it stands where somebody was faster, and where there is none", async () => {
    const { rows, update } = rowsWith(stored);
    const stale = await updateFromVersion(rows, { id: "a", version: 2 }, {}).catch((error: unknown) => error);
    expect(stale).toBeInstanceOf(HttpProblem);
    expect((stale as HttpProblem).toProblem()).toMatchObject({
      ...{ code: "stale_version", detail: expect.stringContaining("Nothing was overwritten"), current: stored },
    });
    const gone = await updateFromVersion(rowsWith(null).rows, { id: "a", version: 3 }, {}).catch((error) => error);
    expect(gone).toMatchObject({ code: "not_found", detail: expect.stringContaining("not stored") });
    expect(update).not.toHaveBeenCalled();
  });
});
