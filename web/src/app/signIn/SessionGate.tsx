import { Loader } from "@mantine/core";
import type { SessionState } from "@pale-cap/contract";
import { type ReactNode, useEffect } from "react";
import { onSessionLost } from "../../api/sessionLoss";
import { rememberedSession } from "../../job/rememberedSession";
import { useSessionQuery } from "../../job/sessionApi";
import { shopEntered } from "../../job/workplaceSlice";
import { forgetOfflineCopies } from "../../offline/offlineCopies";
import { outbox } from "../../outbox/outbox";
import { useAppDispatch, useAppSelector } from "../store/hooks";
import { BenchLock } from "./BenchLock";
import { SignIn } from "./SignIn";

/** Nothing of a shop is shown before somebody is signed in; alone everybody is in. While the server is silent, who was in last stays. */
export function SessionGate({ children }: { readonly children: ReactNode }) {
  const { data, error, refetch } = useSessionQuery();
  const dispatch = useAppDispatch();
  useEffect(() => onSessionLost(() => void refetch()), [refetch]);
  useEffect(() => {
    if (!data) return;
    rememberedSession.keep(data);
    // Signed out, here or by somebody else: what was kept for the time without a server goes.
    if (data.mode === "shop" && !data.who && !data.isBenchOpen) void forgetOfflineCopies();
  }, [data]);
  const state: SessionState | null = data ?? (error ? rememberedSession.get() : null);
  const who = state?.mode === "shop" ? state.who : null;
  const { personId, benchId } = who ?? { personId: null, benchId: null };
  useEffect(() => {
    if (personId === null) return;
    dispatch(shopEntered({ personId, benchId }));
    // What only this person may sign for, or nobody was in for, goes now.
    outbox.resume();
  }, [dispatch, personId, benchId]);
  const here = useAppSelector((store) => store.workplace);
  if (!state) return error ? children : <Loader aria-label="Asking who is here" />;
  if (state.mode === "alone") return children;
  if (!state.who) return state.isBenchOpen ? <BenchLock takers={state.takers} /> : <SignIn state={state} />;
  // One moment until the page knows whose it is: nothing is logged in another's name.
  if (!here.isShop || here.personId !== personId || here.benchId !== benchId) return null;
  return children;
}
