export * from "./refusals";
export * from "./sampleJob";
export * from "./sampleMoment";
export * from "./told";
export * from "./wireValues";
export * from "./workedJobs";
