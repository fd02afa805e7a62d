/** Paths of the server. As patterns for Express with `:name`, and filled in by `path` for the client. */
export const routes = {
  health: "/api/health",
  bench: "/api/bench",
  people: "/api/people",
  catalogue: "/api/catalogue",
  houseRules: "/api/house-rules",
  houseRuleChanges: "/api/house-rules/changes",
  jobs: "/api/jobs",
  job: "/api/jobs/:jobId",
  intake: "/api/jobs/:jobId/intake",
  boardEdits: "/api/jobs/:jobId/board-edits",
  boardTypes: "/api/board-types",
  boardTypeOfJob: "/api/jobs/:jobId/board-type",
  boardTypeUse: "/api/jobs/:jobId/board-type/use",
  readings: "/api/jobs/:jobId/readings",
  signs: "/api/jobs/:jobId/signs",
  energyStores: "/api/jobs/:jobId/energy-stores",
  energyStore: "/api/jobs/:jobId/energy-stores/:storeId",
  chargeEvents: "/api/jobs/:jobId/charge-events",
  powerEvents: "/api/jobs/:jobId/power-events",
  photos: "/api/jobs/:jobId/photos",
  photo: "/api/jobs/:jobId/photos/:photoId",
  photoImage: "/api/photos/:photoId/image",
  photoThumbnail: "/api/photos/:photoId/thumbnail",
  teardownSteps: "/api/jobs/:jobId/teardown-steps",
  teardownStep: "/api/jobs/:jobId/teardown-steps/:stepId",
  teardownReturns: "/api/jobs/:jobId/teardown-returns",
  family: "/api/jobs/:jobId/family",
  familyUnits: "/api/jobs/:jobId/family/units",
  closedJobs: "/api/jobs/:jobId/closed-jobs-alike",
  plan: "/api/jobs/:jobId/plans/:positionId",
  ticks: "/api/jobs/:jobId/ticks",
  acceptances: "/api/jobs/:jobId/acceptances",
  handOver: "/api/jobs/:jobId/hand-over",
} as const;

/** Fills the `:names` of a pattern. */
export function path(pattern: string, values: Readonly<Record<string, string>>): string {
  return pattern.replace(/:([a-zA-Z]+)/g, (_, name: string) => encodeURIComponent(values[name] ?? ""));
}
