import { sampleDetail } from "@pale-cap/contract/testing";
import { expect, it } from "vitest";
import { withoutCustomer } from "./offlineCopies";

it("a copy of a job holds nothing of whose it is, and all that is measured", () => {
  const detail = sampleDetail();
  const told = {
    ...detail,
    job: {
      ...detail.job,
      customerName: "Osric Vandeleer",
      customerContact: "osric@example.net",
      ownersWords: "my late aunt's",
    },
    quotes: [{ note: "call Osric" }] as never,
    quoteAnswers: [{ byWhom: "Osric Vandeleer", word: "yes" }] as never,
  };
  const copy = withoutCustomer(told);
  expect(JSON.stringify(copy)).not.toMatch(/osric|aunt/i);
  expect([copy.readings, copy.positions, copy.job.complaint]).toEqual([
    detail.readings,
    detail.positions,
    detail.job.complaint,
  ]);
  expect(copy.quoteAnswers).toEqual([{ byWhom: "somebody", word: "yes" }]);
});
