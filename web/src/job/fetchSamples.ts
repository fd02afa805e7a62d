import { path, routes } from "@pale-cap/contract";

/** The samples of a stored capture. */
export async function fetchSamples(captureId: string): Promise<Float32Array> {
  const answer = await fetch(path(routes.captureSamples, { captureId }));
  if (!answer.ok) throw new Error(`The samples could not be fetched (${answer.status}).`);
  return new Float32Array(await answer.arrayBuffer());
}
