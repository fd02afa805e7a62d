import type { Right, SignedIn } from "@pale-cap/contract";
import { rememberedSession } from "./rememberedSession";
import { useSessionQuery } from "./sessionApi";

/** Who is at this browser: as the server says, or as it said last while it is silent. */
export function useWho(): SignedIn | null {
  const { data } = useSessionQuery();
  return (data ?? rememberedSession.get())?.who ?? null;
}

/** Whether they may do something: the server asks the same, and hides nothing that it allows. */
export function useMay(right: Right): boolean {
  return useWho()?.rights.includes(right) ?? true;
}
