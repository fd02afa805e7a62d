export * from "./sampleDetail";
