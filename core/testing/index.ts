export * from "./refusals";
export * from "./sampleJob";
export * from "./sampleMoment";
export * from "./wireValues";
