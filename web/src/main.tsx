import "@mantine/core/styles.css";
import "@mantine/notifications/styles.css";
import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/atkinson-hyperlegible-mono";
// The signs of the trade: µ, Ω, ≤, ≥, ≈ and → are in neither of the two.
import "@fontsource/dejavu-sans/latin-400.css";
import "@fontsource/dejavu-sans/latin-700.css";
import "@fontsource/dejavu-mono/latin-400.css";
import "@fontsource/dejavu-mono/latin-700.css";
import "./app/theme.css";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./app/App";
import { copyOpenJobs } from "./offline/copyOpenJobs";
import { openOutbox } from "./outbox/outbox";

openOutbox();
copyOpenJobs();
// On a network without a certificate nothing may stay in the browser that could be changed on the way.
if (import.meta.env.PROD && globalThis.isSecureContext && "serviceWorker" in navigator) {
  void import("./offline/registerShell").then(({ registerShell }) => registerShell());
}

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
