import { registerSW } from "virtual:pwa-register";
import { shellUpdate } from "./shellUpdate";

const hourMilliseconds = 3_600_000;

/** The client's own files are kept by this browser; a newer client waits until a person takes it. */
export function registerShell(): void {
  const take = registerSW({
    onNeedRefresh: () => shellUpdate.found(() => void take(true)),
    onRegisteredSW: (_url, registration) => {
      // A page that stays open for days asks now and then.
      if (registration) setInterval(() => void registration.update().catch(() => undefined), hourMilliseconds);
    },
  });
}
