declare module "comlink/dist/esm/node-adapter.mjs" {
  import type { MessagePort, Worker } from "node:worker_threads";
  import type { Endpoint } from "comlink";

  /** A thread's port as the library takes it. */
  const nodeEndpoint: (port: MessagePort | Worker) => Endpoint;
  // biome-ignore lint/style/noDefaultExport: the library's own shape
  export default nodeEndpoint;
}
