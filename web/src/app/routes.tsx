import { createBrowserRouter, Navigate } from "react-router";
import { JobFrame } from "./frame/JobFrame";
import { PageFrame } from "./frame/PageFrame";
import { RouteProblem } from "./frame/RouteProblem";

/** Every place of the product; each lens is loaded when it is first entered. */
export const router = createBrowserRouter([
  {
    errorElement: <RouteProblem />,
    hydrateFallbackElement: <div />,
    children: [
      {
        element: <PageFrame />,
        children: [
          {
            index: true,
            lazy: async () => ({ Component: (await import("../features/bench/BenchScreen")).BenchScreen }),
          },
          {
            path: "instruments",
            lazy: async () => ({
              Component: (await import("../features/instruments/InstrumentsScreen")).InstrumentsScreen,
            }),
          },
          {
            path: "house-rules",
            lazy: async () => ({
              Component: (await import("../features/houseRules/HouseRulesScreen")).HouseRulesScreen,
            }),
          },
          {
            path: "esr-sheet",
            lazy: async () => ({ Component: (await import("../features/esrSheet/EsrSheetScreen")).EsrSheetScreen }),
          },
          {
            path: "working-safely",
            lazy: async () => ({
              Component: (await import("../features/safely/WorkingSafelyScreen")).WorkingSafelyScreen,
            }),
          },
        ],
      },
      {
        path: "jobs/:jobId",
        element: <JobFrame />,
        children: [
          { index: true, element: <Navigate to="intake" replace /> },
          {
            path: "intake",
            lazy: async () => ({ Component: (await import("../features/intake/IntakeLens")).IntakeLens }),
          },
          {
            path: "make-safe",
            lazy: async () => ({ Component: (await import("../features/makeSafe/MakeSafeLens")).MakeSafeLens }),
          },
          {
            path: "inspect",
            lazy: async () => ({ Component: (await import("../features/inspect/InspectLens")).InspectLens }),
          },
          {
            path: "measure",
            lazy: async () => ({ Component: (await import("../features/measure/MeasureLens")).MeasureLens }),
          },
          { path: "judge", lazy: async () => ({ Component: (await import("../features/judge/JudgeLens")).JudgeLens }) },
          {
            path: "ripple/:netId",
            lazy: async () => ({ Component: (await import("../ripple/RippleScreen")).RippleScreen }),
          },
          {
            path: "choose",
            lazy: async () => ({ Component: (await import("../features/choose/ChooseLens")).ChooseLens }),
          },
          {
            path: "rework",
            lazy: async () => ({ Component: (await import("../features/rework/ReworkLens")).ReworkLens }),
          },
          { path: "prove", lazy: async () => ({ Component: (await import("../features/prove/ProveLens")).ProveLens }) },
          {
            path: "hand-over",
            lazy: async () => ({ Component: (await import("../features/handOver/HandOverLens")).HandOverLens }),
          },
        ],
      },
      {
        path: "jobs/:jobId/report",
        lazy: async () => ({ Component: (await import("../features/handOver/ReportPage")).ReportPage }),
      },
    ],
  },
]);
