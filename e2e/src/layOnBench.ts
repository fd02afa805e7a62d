import type { BenchSupply } from "@pale-cap/contract";

/** Lays a supply on the simulated bench, as soon as the server holds the lines to it. @returns its card */
export async function layOnBench(server: { readonly address: string }, name: string): Promise<BenchSupply> {
  let refusal = "";
  for (let attempt = 0; attempt < 60; attempt++) {
    const answer = await fetch(`${server.address}/api/bench-supply`, {
      method: "PUT",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ name }),
    });
    if (answer.ok) return (await answer.json()) as BenchSupply;
    refusal = `${answer.status} ${await answer.text()}`;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  throw new Error(`${name} does not lie on the bench: ${refusal}`);
}
