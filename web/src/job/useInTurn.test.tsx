// @vitest-environment happy-dom

import { sampleDetail } from "@pale-cap/contract/testing";
import { cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { sampleView, underJob } from "../../testing/sampleView";
import { silence } from "../api/api";
import { store } from "../app/store/store";
import { jobApi } from "./jobApi";
import { useInTurn } from "./useInTurn";

const sendBefore = vi.hoisted(() => vi.fn());
vi.mock("../outbox/outbox", () => ({ outbox: { sendBefore } }));

const detail = sampleDetail();
/** Renames the job in the cache, as the answer of an edit does. */
const rename = (complaint: string) =>
  store.dispatch(
    jobApi.util.updateQueryData("job", "job-1", (draft) => ({ ...draft, job: { ...draft.job, complaint } })),
  );

beforeEach(async () => {
  sendBefore.mockReset().mockResolvedValue(true);
  await store.dispatch(jobApi.util.upsertQueryData("job", "job-1", detail));
});
afterEach(cleanup);

const inTurn = () => renderHook(() => useInTurn(), { wrapper: underJob(() => sampleView(detail)) }).result.current;

describe("useInTurn", () => {
  it("makes each edit from what is stored by then, after the facts that were confirmed before it", async () => {
    const send = inTurn();
    const order: string[] = [];
    sendBefore.mockImplementation(async () => order.push("facts") > 0);
    const first = send(
      async (now) => {
        order.push(`first from ${now.job.complaint}`);
        await Promise.resolve();
        rename("told by the first");
        return 1;
      },
      () => 0,
    );
    const second = send(
      async (now) => {
        order.push(`second from ${now.job.complaint}`);
        return 2;
      },
      () => 0,
    );
    expect(await Promise.all([first, second])).toEqual([1, 2]);
    expect(order).toEqual(["facts", "first from resets under load", "facts", "second from told by the first"]);
  });

  it("sends nothing out of turn while facts before it wait for a silent server", async () => {
    sendBefore.mockResolvedValue(false);
    const work = vi.fn();
    expect(await inTurn()(work, (problem) => problem)).toBe(silence);
    expect(work).not.toHaveBeenCalled();
  });

  it("lets the next edit go on after one that failed", async () => {
    const send = inTurn();
    const failed = send(
      () => Promise.reject(new Error("refused")),
      () => "unsent",
    );
    const next = send(
      async () => "sent",
      () => "unsent",
    );
    await expect(failed).rejects.toThrow("refused");
    expect(await next).toBe("sent");
  });
});
