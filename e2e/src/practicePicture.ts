import type { Page } from "./page";
import { practiceJob } from "./practiceJob";
import type { ServerUnderTest } from "./server";
import { shopApi } from "./shopApi";

/** The debrief of a masked part: found, with a pad pulled on the way and a sound neighbour condemned. */
export async function openDebrief(server: ServerUnderTest, page: Page): Promise<void> {
  const { jobId, act, hint, readEsr, end } = await practiceJob(shopApi(server), "masked-bank");
  await act("look");
  await act("check", { check: "lead" });
  await act("mains", { isOn: true, lampWatts: 60, isIsolated: true });
  await act("listen");
  await act("mains", { isOn: false });
  await act("drain", { at: "Bulk", ohms: 2200 });
  await act("wait", { minutes: 2 });
  for (const [at, value] of [
    ["C7", 0.39],
    ["C16", 0.016],
    ["C11", 0.035],
  ] as const)
    await readEsr(at, value, "in_circuit");
  for (const [at, value, isPreheated] of [
    ["C11", 0.037, true],
    ["C12", 2.9, false],
    ["C18", 0.062, true],
  ] as const) {
    await act("lift", { at, isPreheated });
    await act("wait", { minutes: 12 });
    await readEsr(at, value, "lead_lifted");
    if (at === "C12") await hint(1);
  }
  await end({ C12: 0.98, C13: 0.6 });
  await page.open(`/practice/${jobId}`);
  await page.see("Its neighbour C11 hides it in circuit");
}
