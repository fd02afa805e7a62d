import { createBrowserRouter, Navigate, Outlet } from "react-router";
import { JobFrame } from "./frame/JobFrame";
import { PageFrame } from "./frame/PageFrame";
import { LensProblem, RouteProblem } from "./frame/RouteProblem";
import { SessionGate } from "./signIn/SessionGate";

/** Every place of the product; each lens is loaded when it is first entered. */
export const router = createBrowserRouter([
  {
    // Whoever has a link has no account yet, or no password.
    path: "welcome",
    hydrateFallbackElement: <div />,
    lazy: async () => ({ Component: (await import("../places/welcome/WelcomeScreen")).WelcomeScreen }),
  },
  {
    element: (
      <SessionGate>
        <Outlet />
      </SessionGate>
    ),
    errorElement: <RouteProblem />,
    hydrateFallbackElement: <div />,
    children: [
      {
        element: <PageFrame />,
        children: [
          {
            index: true,
            lazy: async () => ({ Component: (await import("../places/benchScreen/BenchScreen")).BenchScreen }),
          },
          {
            path: "instruments",
            lazy: async () => ({
              Component: (await import("../places/instruments/InstrumentsScreen")).InstrumentsScreen,
            }),
          },
          {
            path: "house-rules",
            lazy: async () => ({
              Component: (await import("../places/houseRules/HouseRulesScreen")).HouseRulesScreen,
            }),
          },
          {
            path: "parts",
            lazy: async () => ({ Component: (await import("../places/parts/PartsScreen")).PartsScreen }),
            children: [
              {
                index: true,
                lazy: async () => ({ Component: (await import("../places/parts/DrawersTab")).DrawersTab }),
              },
              {
                path: "catalogue",
                lazy: async () => ({ Component: (await import("../places/parts/CatalogueTab")).CatalogueTab }),
              },
              {
                path: "other",
                lazy: async () => ({ Component: (await import("../places/parts/OtherPartsTab")).OtherPartsTab }),
              },
              {
                path: "orders",
                lazy: async () => ({ Component: (await import("../places/parts/OrdersTab")).OrdersTab }),
              },
            ],
          },
          {
            path: "casebook",
            lazy: async () => ({ Component: (await import("../places/casebook/CasebookScreen")).CasebookScreen }),
            children: [
              {
                index: true,
                lazy: async () => ({ Component: (await import("../places/casebook/RepairsTab")).RepairsTab }),
              },
              {
                path: "kind",
                lazy: async () => ({ Component: (await import("../places/casebook/KindScreen")).KindScreen }),
              },
              {
                path: "series",
                lazy: async () => ({ Component: (await import("../places/casebook/SeriesTab")).SeriesTab }),
              },
              {
                path: "series/one",
                lazy: async () => ({ Component: (await import("../places/casebook/SeriesScreen")).SeriesScreen }),
              },
              {
                path: "changes",
                lazy: async () => ({ Component: (await import("../places/casebook/ChangesTab")).ChangesTab }),
              },
              {
                path: "quality",
                lazy: async () => ({ Component: (await import("../places/casebook/QualityTab")).QualityTab }),
              },
            ],
          },
          {
            path: "practice",
            lazy: async () => ({ Component: (await import("../places/practice/PracticeScreen")).PracticeScreen }),
            children: [
              {
                index: true,
                lazy: async () => ({ Component: (await import("../places/practice/SuppliesTab")).SuppliesTab }),
              },
              {
                path: "lessons",
                lazy: async () => ({ Component: (await import("../places/practice/LessonsTab")).LessonsTab }),
              },
              {
                path: "lessons/:lesson",
                lazy: async () => ({ Component: (await import("../places/practice/LessonScreen")).LessonScreen }),
              },
              {
                path: "progress",
                lazy: async () => ({ Component: (await import("../places/practice/ProgressTab")).ProgressTab }),
              },
              {
                path: "lists",
                lazy: async () => ({ Component: (await import("../places/practice/ListsTab")).ListsTab }),
              },
            ],
          },
          {
            path: "people",
            lazy: async () => ({ Component: (await import("../places/people/PeopleScreen")).PeopleScreen }),
            children: [
              {
                index: true,
                lazy: async () => ({ Component: (await import("../places/people/BenchesTab")).BenchesTab }),
              },
              {
                path: "accounts",
                lazy: async () => ({ Component: (await import("../places/people/AccountsTab")).AccountsTab }),
              },
              {
                path: "audit",
                lazy: async () => ({ Component: (await import("../places/people/AuditTab")).AuditTab }),
              },
              {
                path: "me",
                lazy: async () => ({ Component: (await import("../places/people/OwnSecretsTab")).OwnSecretsTab }),
              },
            ],
          },
          {
            path: "practice/:jobId",
            lazy: async () => ({ Component: (await import("../places/practice/DebriefScreen")).DebriefScreen }),
          },
          {
            path: "family/:jobId",
            lazy: async () => ({ Component: (await import("../places/family/FamilyScreen")).FamilyScreen }),
          },
          {
            path: "go/:code",
            lazy: async () => ({ Component: (await import("../places/code/CodePage")).CodePage }),
          },
          {
            path: "esr-sheet",
            lazy: async () => ({ Component: (await import("../places/esrSheet/EsrSheetScreen")).EsrSheetScreen }),
          },
          {
            path: "working-safely",
            lazy: async () => ({
              Component: (await import("../places/safely/WorkingSafelyScreen")).WorkingSafelyScreen,
            }),
          },
        ],
      },
      {
        path: "jobs/:jobId",
        element: <JobFrame />,
        children: [
          {
            // A lens that breaks leaves ladder and job where they are.
            errorElement: <LensProblem />,
            children: [
              { index: true, element: <Navigate to="intake" replace /> },
              {
                path: "intake",
                lazy: async () => ({ Component: (await import("../lenses/intake/IntakeLens")).IntakeLens }),
              },
              {
                path: "make-safe",
                lazy: async () => ({ Component: (await import("../lenses/makeSafe/MakeSafeLens")).MakeSafeLens }),
              },
              {
                path: "inspect",
                lazy: async () => ({ Component: (await import("../lenses/inspect/InspectLens")).InspectLens }),
              },
              {
                path: "measure",
                lazy: async () => ({ Component: (await import("../lenses/measure/MeasureLens")).MeasureLens }),
              },
              {
                path: "judge",
                lazy: async () => ({ Component: (await import("../lenses/judge/JudgeLens")).JudgeLens }),
              },
              {
                path: "ripple/:netId",
                lazy: async () => ({ Component: (await import("../lenses/ripple/RippleScreen")).RippleScreen }),
              },
              {
                path: "choose",
                lazy: async () => ({ Component: (await import("../lenses/choose/ChooseLens")).ChooseLens }),
              },
              {
                path: "rework",
                lazy: async () => ({ Component: (await import("../lenses/rework/ReworkLens")).ReworkLens }),
              },
              {
                path: "prove",
                lazy: async () => ({ Component: (await import("../lenses/prove/ProveLens")).ProveLens }),
              },
              {
                path: "hand-over",
                lazy: async () => ({ Component: (await import("../lenses/handOver/HandOverLens")).HandOverLens }),
              },
            ],
          },
        ],
      },
      {
        path: "jobs/:jobId/proof",
        lazy: async () => ({ Component: (await import("../lenses/prove/ProofPage")).ProofPage }),
      },
      {
        path: "jobs/:jobId/runs/:runId",
        lazy: async () => ({ Component: (await import("../lenses/prove/runs/RunPage")).RunPage }),
      },
      {
        path: "jobs/:jobId/rework-list",
        lazy: async () => ({ Component: (await import("../lenses/rework/ReworkListPage")).ReworkListPage }),
      },
      {
        path: "jobs/:jobId/report",
        lazy: async () => ({ Component: (await import("../lenses/handOver/ReportPage")).ReportPage }),
      },
    ],
  },
]);
