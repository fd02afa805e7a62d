// The thread's first module is plain JavaScript: TypeScript is understood from the next one on.
import { register } from "tsx/esm/api";

register();
await import("./heavyWorker.ts");
