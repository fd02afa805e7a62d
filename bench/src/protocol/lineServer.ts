import { type AddressInfo, createServer, type Socket } from "node:net";
import { createInterface } from "node:readline";
import type { Instrument } from "../instruments/instrument";
import { longestLine } from "./commandLine";
import { LineSession } from "./lineSession";

export interface LineServer {
  readonly port: number;
  close(): Promise<void>;
}

/** Listens on loopback for one instrument; every connection is a session of its own. Port 0 takes any free one. */
export async function serveInstrument(instrument: Instrument, port: number): Promise<LineServer> {
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.on("close", () => sockets.delete(socket));
    attend(instrument, socket);
  });
  await new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "127.0.0.1", resolve);
  });
  return {
    port: (server.address() as AddressInfo).port,
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        for (const socket of sockets) socket.destroy();
      }),
  };
}

/** A page of the web can make a browser send lines here: whatever looks like its request, or its headers, is hung up on. */
function isWebRequest(line: string): boolean {
  return (
    /^[A-Z]+ \S+ HTTP\/\d/i.test(line) || /^(host|origin|user-agent|content-type|content-length|referer):/i.test(line)
  );
}

function attend(instrument: Instrument, socket: Socket): void {
  const session = new LineSession(instrument);
  socket.setNoDelay(true);
  socket.on("error", () => socket.destroy());
  let unfinished = 0;
  socket.on("data", (chunk: Buffer) => {
    // A line that never ends must not fill the memory.
    unfinished = chunk.includes(10) ? 0 : unfinished + chunk.length;
    if (unfinished > 100 * longestLine) socket.destroy();
  });
  createInterface({ input: socket, crlfDelay: Infinity })
    // It passes on the errors of the socket, which are taken above.
    .on("error", () => undefined)
    .on("line", (line) => {
      // What came before the line was hung up may still be in the reader: nothing of it is carried out.
      if (socket.destroyed) return;
      if (isWebRequest(line) || session.isStranger) {
        socket.destroy();
        return;
      }
      const answer = session.take(line);
      if (answer !== null && socket.writable) socket.write(`${answer}\n`);
    });
}
