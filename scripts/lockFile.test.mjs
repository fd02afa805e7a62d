import { describe, expect, it } from "vitest";
import { lockFileFaults } from "./lockFile.mjs";

const good = { version: "1.2.3", integrity: "sha512-aa==" };
const faultsOf = (more, place = "node_modules/thing") =>
  lockFileFaults(JSON.stringify({ lockfileVersion: 3, packages: { "": {}, core: {}, [place]: { ...good, ...more } } }));

describe("the lock file", () => {
  it("holds with a sum and a version for each package; workspaces and what a package brings along are itself", () => {
    expect(faultsOf({})).toEqual([]);
    expect(faultsOf({ resolved: "https://somewhere.example/thing.tgz" })).toEqual([]);
    expect(faultsOf({ integrity: undefined, inBundle: true })).toEqual([]);
    expect(faultsOf({ link: true, integrity: undefined })).toEqual([]);
  });
  it.each([
    ["no sum", { integrity: undefined }],
    ["a weak sum", { integrity: "sha1-aa==" }],
    ["a git source", { resolved: "git+ssh://git@somewhere.example/thing.git#1" }],
    ["plain http", { resolved: "http://somewhere.example/thing.tgz" }],
    ["a file", { resolved: "file:../thing.tgz" }],
    ["a source by its short name", { resolved: "github:somebody/thing" }],
    ["no version", { version: undefined }],
    ["a source in the place of a version", { version: "git+https://somewhere.example/thing.git" }],
    ["a script at install that nobody listed", { hasInstallScript: true }],
  ])("does not with %s", (_, more) => {
    expect(faultsOf(more)).toHaveLength(1);
  });
  it("lets those run something at install that are listed, wherever they stand, and nobody who is only called alike", () => {
    expect(faultsOf({ hasInstallScript: true }, "node_modules/a/node_modules/esbuild")).toEqual([]);
    expect(faultsOf({ hasInstallScript: true }, "node_modules/esbuild-thing")).toHaveLength(1);
    expect(faultsOf({ hasInstallScript: true }, "node_modules/@other/esbuild")).toHaveLength(1);
  });
  it("is of a version that tells sums", () => {
    expect(lockFileFaults(JSON.stringify({ lockfileVersion: 1, packages: {} }))).toHaveLength(1);
  });
});
