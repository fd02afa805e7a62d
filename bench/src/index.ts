export { instruments } from "./instruments";
export { Bench } from "./instruments/bench";
export { LineSession } from "./protocol/lineSession";
export { loadScenarios, parseScenario, scenarioFolder } from "./scenarios";
export { type RunningBench, startBench } from "./startBench";
