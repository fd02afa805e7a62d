import { ensurePackages } from "./npmPackages.mjs";

/** Runs a TypeScript module in Node, its packages installed first. */
export async function runInNode(path) {
  await ensurePackages();
  const { register } = await import("tsx/esm/api");
  register();
  await import(path);
}
