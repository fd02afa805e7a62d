import type { SessionState } from "@pale-cap/contract";

const place = "pale-cap session";

/** Who was signed in when the server last answered: names and rights, nothing that lets anybody in. */
export const rememberedSession = {
  get(): SessionState | null {
    try {
      return JSON.parse(localStorage.getItem(place) ?? "null") as SessionState | null;
    } catch {
      return null;
    }
  },
  keep(state: SessionState): void {
    try {
      localStorage.setItem(place, JSON.stringify(state));
    } catch {
      // A browser that keeps nothing asks the server each time.
    }
  },
};
