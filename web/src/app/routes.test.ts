// @vitest-environment happy-dom
import { expect, it } from "vitest";
import { router } from "./routes";

it("holds a lens that breaks inside the frame of its job", () => {
  const job = router.routes.find((one) => one.children)?.children?.find((one) => one.path === "jobs/:jobId");
  const [lenses, ...others] = job?.children ?? [];
  expect(others).toEqual([]);
  expect(lenses?.hasErrorBoundary).toBe(true);
  expect(lenses?.children?.map((one) => one.path)).toContain("ripple/:netId");
});
