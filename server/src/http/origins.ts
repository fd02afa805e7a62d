import type { NextFunction, Request, Response } from "express";
import { HttpProblem } from "./problems";

/** Names under which this server is served; ports are its own and those of a page in front of it. */
export interface ServedAt {
  readonly hosts: readonly string[];
  readonly ports: readonly number[];
  /** Pages come over TLS, from here or from a proxy. */
  readonly isSecure?: boolean;
}

export const loopbackNames = ["127.0.0.1", "localhost", "[::1]"] as const;

/**
 * Lets in only requests to an address that is served, from pages of that same address. A foreign name that was bent to
 * this machine, a page of another origin, and one without a readable origin are refused before anything is read.
 */
export function refuseForeign({ hosts, ports, isSecure = false }: ServedAt) {
  return (request: Request, _response: Response, next: NextFunction): void => {
    const host = request.headers.host ?? "";
    const match = /^(\[[0-9a-f:.]+\]|[^:]+?)(?::(\d+))?$/i.exec(host);
    const name = match?.[1]?.toLowerCase();
    const port = Number(match?.[2] ?? (isSecure ? 443 : 80));
    if (!name || !hosts.includes(name) || ![request.socket.localPort, ...ports].includes(port)) {
      throw new HttpProblem("not_allowed", "This server is not served under that address.");
    }
    const { origin } = request.headers;
    if (origin !== undefined && originHost(origin, isSecure) !== host.toLowerCase()) {
      throw new HttpProblem("not_allowed", "This page does not belong to this server.");
    }
    next();
  };
}

/** Host and port as a Host header has them; null for an origin that cannot be read, `null` included. */
function originHost(origin: string, isSecure: boolean): string | null {
  if (!URL.canParse(origin)) return null;
  const { protocol, host } = new URL(origin);
  // Where pages come over TLS, a plain one of the same name is somebody else's.
  return protocol === "https:" || (protocol === "http:" && !isSecure) ? host : null;
}
