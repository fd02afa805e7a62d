// npm run study:judge [BOARDS] [tune]: virtual boards through the simulated instruments, held against the truth.
import { runInNode } from "./inNode.mjs";

await runInNode("../bench/src/study/main.ts");
