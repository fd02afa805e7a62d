import { expect, it } from "vitest";
import { stampOf } from "./npmPackages.mjs";

it("packages are installed again for another lock file, another Node and another machine", () => {
  const here = [{ modules: "115" }, { platform: "linux", arch: "x64" }];
  const stamp = stampOf("lock", ...here);
  expect(stampOf("lock", ...here)).toBe(stamp);
  expect(stampOf("another lock", ...here)).not.toBe(stamp);
  expect(stampOf("lock", { modules: "127" }, here[1])).not.toBe(stamp);
  expect(stampOf("lock", here[0], { platform: "linux", arch: "arm64" })).not.toBe(stamp);
});
