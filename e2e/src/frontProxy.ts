import { createServer } from "node:http";
import httpProxy from "http-proxy";

/** One address in front of several server processes: each request goes to the next of them, a read that found nobody to another. */
export interface FrontProxy {
  readonly address: string;
  close(): Promise<void>;
}

export async function openFrontProxy(port: number, targets: readonly string[]): Promise<FrontProxy> {
  const proxy = httpProxy.createProxyServer({ xfwd: true });
  let turn = 0;
  const server = createServer((request, response) => {
    let tries = 0;
    const go = () => {
      const target = targets[turn++ % targets.length] as string;
      proxy.web(request, response, { target }, () => {
        tries += 1;
        // A write may have been stored before its server was killed: whoever sent it asks again under its id.
        if (request.method === "GET" && tries < targets.length && !response.headersSent) go();
        else if (!response.headersSent) response.writeHead(502).end();
        else response.destroy();
      });
    };
    go();
  });
  await new Promise<void>((resolve) => server.listen(port, "127.0.0.1", resolve));
  return {
    address: `http://127.0.0.1:${port}`,
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
        proxy.close();
      }),
  };
}
