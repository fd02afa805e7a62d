import { type InstrumentState, routes } from "@pale-cap/contract";
import { useEffect } from "react";
import { useAppDispatch } from "../../app/store/hooks";
import { stateTold, streamClosed, streamOpened } from "./instrumentSlice";

/** Listens to the instruments while the screen is mounted and its tab is the visible one. */
export function useInstrumentStream(): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    let source: EventSource | null = null;
    const open = () => {
      source = new EventSource(routes.instrumentStream);
      source.onopen = () => dispatch(streamOpened());
      source.onmessage = ({ data }) => dispatch(stateTold(JSON.parse(data as string) as InstrumentState));
      // It tries again by itself; until then nothing old may pass for live.
      source.onerror = () => dispatch(streamClosed());
    };
    const close = () => {
      source?.close();
      source = null;
      dispatch(streamClosed());
    };
    const turn = () => (document.hidden ? close() : source || open());
    turn();
    document.addEventListener("visibilitychange", turn);
    return () => {
      document.removeEventListener("visibilitychange", turn);
      close();
    };
  }, [dispatch]);
}
