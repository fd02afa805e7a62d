export * from "./boards/board";
export * from "./energy/energy";
export * from "./houseRules/houseRules";
export * from "./jobs/job";
export * from "./jobs/jobDetail";
export * from "./plans/plan";
export * from "./problem";
export * from "./readings/reading";
export { path, routes } from "./routes";
