import { api } from "../../api/api";
import { rememberedSession } from "../../job/rememberedSession";
import { useSignOutMutation } from "../../job/sessionApi";
import { forgetOfflineCopies } from "../../offline/offlineCopies";
import { useAppDispatch } from "../store/hooks";

/** Signing out: what this browser shows and keeps of the shop's jobs goes; what was entered and is not stored yet stays. */
export function useLeave() {
  const dispatch = useAppDispatch();
  const [end, { isLoading }] = useSignOutMutation();
  return {
    isLoading,
    signOut: async () => {
      const answer = await end();
      if ("error" in answer) return;
      await forgetOfflineCopies();
      rememberedSession.keep({ mode: "shop", who: null, isBenchOpen: false, takers: [], isFirstStart: false });
      dispatch(api.util.resetApiState());
    },
  };
}
