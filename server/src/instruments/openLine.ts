import { connect } from "node:net";
import type { Duplex } from "node:stream";
import { benchPort, type Instrument, type InstrumentAddresses } from "@pale-cap/contract";
import { allowedAddress } from "./addresses";

const connectMilliseconds = 1500;

/** Opens the stream to an instrument as it was set up: a simulated one, a TCP port, or a serial device. */
export async function openLine(
  values: Instrument,
  benchBasePort: number,
  addresses: InstrumentAddresses,
): Promise<Duplex> {
  switch (values.transport) {
    case "simulated":
      if (values.simulatedSet > 0) await openSet(benchBasePort, values.simulatedSet);
      return openTcp("127.0.0.1", benchPort(values.kind, benchBasePort, values.simulatedSet, values.channel));
    case "tcp":
      return openTcp(await allowedAddress(values.host ?? "", addresses), values.port ?? 0);
    case "serial":
      return openSerial(values.devicePath ?? "", values.baudRate ?? 9600);
  }
}

/** A line of its own to the mains source of a simulated bench, beside the one that the hub keeps. */
export async function openBenchLine(benchBasePort: number, set: number): Promise<Duplex> {
  if (set > 0) await openSet(benchBasePort, set);
  return openTcp("127.0.0.1", benchPort("mains", benchBasePort, set));
}

/** The simulated benches beside the first open their ports when somebody asks for them. */
async function openSet(benchBasePort: number, set: number): Promise<void> {
  const line = await openTcp("127.0.0.1", benchPort("mains", benchBasePort));
  line.on("error", () => undefined);
  // The answer comes when the wish is taken; the ports follow, and a line that is not there yet is tried again.
  line.once("data", () => line.end());
  line.write(`SYST:SETS? ${set + 1}\n`);
}

function openTcp(host: string, port: number): Promise<Duplex> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port });
    const timer = setTimeout(() => socket.destroy(new Error(`${host}:${port} does not answer`)), connectMilliseconds);
    socket.once("connect", () => {
      clearTimeout(timer);
      socket.setNoDelay(true);
      resolve(socket);
    });
    socket.once("error", (error) => {
      clearTimeout(timer);
      reject(error);
    });
  });
}

/** The serial library is loaded only where a shop has such a device: its native part need not work elsewhere. */
async function openSerial(path: string, baudRate: number): Promise<Duplex> {
  const { SerialPort } = await import("serialport");
  return new Promise((resolve, reject) => {
    const port = new SerialPort({ path, baudRate, autoOpen: false });
    port.open((error) => (error ? reject(error) : resolve(port)));
  });
}
