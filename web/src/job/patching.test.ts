import type { JobDetail, Problem } from "@pale-cap/contract";
import { configureStore } from "@reduxjs/toolkit";
import { describe, expect, it } from "vitest";
import { api, silence } from "../api/api";
import { jobApi } from "./jobApi";
import { layAnswers, patching } from "./patching";

const testApi = api.injectEndpoints({
  endpoints: (build) => ({
    rename: build.mutation<{ readonly name: string }, { readonly jobId: string }>({
      queryFn: () => answer(),
      onQueryStarted: patching((detail, { name }) => ({ ...detail, job: { ...detail.job, deviceModel: name } })),
    }),
  }),
});

/** What the server says next. */
let answer: () => { data: { readonly name: string } } | { error: Problem } = () => ({ data: { name: "after" } });

const cached = { job: { id: "one", deviceModel: "before" } } as unknown as JobDetail;

function openStore() {
  return configureStore({
    reducer: { [api.reducerPath]: api.reducer },
    middleware: (defaults) => defaults({ serializableCheck: false }).prepend(layAnswers).concat(api.middleware),
  });
}

describe("patching", () => {
  async function renamed(jobId: string) {
    const store = openStore();
    await store.dispatch(jobApi.util.upsertQueryData("job", "one", cached));
    // Whatever waits for the request is told after the answer lies in the job.
    const seen: string[] = [];
    const request = store.dispatch(testApi.endpoints.rename.initiate({ jobId }));
    await request.then(() => {
      seen.push(jobApi.endpoints.job.select("one")(store.getState()).data?.job.deviceModel ?? "nothing");
    });
    return seen;
  }

  it("has laid an answer into its job before whoever waits for it goes on", async () => {
    expect(await renamed("one")).toEqual(["after"]);
  });

  it("leaves other jobs, and a job that was refused, as they are", async () => {
    expect(await renamed("other")).toEqual(["before"]);
    answer = () => ({ error: silence });
    expect(await renamed("one")).toEqual(["before"]);
  });
});
