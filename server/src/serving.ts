import { readFileSync } from "node:fs";
import { isIP } from "node:net";
import type { RunMode } from "@pale-cap/contract";
import { loopbackNames, type ServedAt } from "./http/origins";

/** How this server is reached, and by whom. */
export interface Serving {
  readonly mode: RunMode;
  /** The address that it listens on. */
  readonly listen: string;
  readonly isLoopback: boolean;
  readonly tls: { readonly cert: Buffer; readonly key: Buffer } | null;
  /** Addresses of proxies that are believed when they say for whom they ask. */
  readonly trustedProxies: readonly string[];
  /** Pages come over TLS: from here, or from the proxy in front. */
  readonly isSecure: boolean;
  readonly servedAt: ServedAt;
  /** Where figures of this process are told, on loopback; null: nowhere. */
  readonly metricsPort: number | null;
}

/** Said to the person who starts; nothing was opened. */
export class StartRefused extends Error {}

type Environment = Readonly<Record<string, string | undefined>>;

/**
 * Reads how to serve from the environment.
 *
 * @throws {StartRefused} where that would open the shop to whoever passes by
 */
export function servingFrom(environment: Environment, frontPorts: readonly number[] = []): Serving {
  const listen = environment.PALE_CAP_LISTEN || "127.0.0.1";
  const isLoopback = listen === "localhost" || listen === "::1" || /^127\./.test(listen);
  if (!isLoopback && isIP(listen) === 0) {
    throw new StartRefused(
      `PALE_CAP_LISTEN must be an address of this machine, such as 192.168.1.20 or 0.0.0.0, not "${listen}".`,
    );
  }
  const asked = environment.PALE_CAP_MODE || (isLoopback ? "alone" : "shop");
  if (asked !== "alone" && asked !== "shop") throw new StartRefused(`PALE_CAP_MODE is alone or shop, not "${asked}".`);
  if (asked === "alone" && !isLoopback) {
    throw new StartRefused(
      "Alone, Pale Cap listens to this machine only: nobody signs in. Beyond it, PALE_CAP_MODE must be shop.",
    );
  }
  const tls = tlsFrom(environment);
  const trustedProxies = listOf(environment.PALE_CAP_TRUSTED_PROXIES);
  for (const proxy of trustedProxies) {
    if (isIP(proxy.split("/")[0] ?? "") === 0) {
      throw new StartRefused(
        `PALE_CAP_TRUSTED_PROXIES holds addresses or networks such as 10.0.0.7 or 10.0.0.0/24, not "${proxy}".`,
      );
    }
  }
  if (!isLoopback && !tls && trustedProxies.length === 0) {
    throw new StartRefused(
      "Beyond this machine passwords must not travel in clear: give PALE_CAP_TLS_CERT and PALE_CAP_TLS_KEY, or put a proxy with TLS in front and name it in PALE_CAP_TRUSTED_PROXIES.",
    );
  }
  const named = listOf(environment.PALE_CAP_HOSTS).map((one) => /^(.+?)(?::(\d+))?$/.exec(one.toLowerCase()));
  if (!isLoopback && named.length === 0) {
    throw new StartRefused("PALE_CAP_HOSTS must name what people type to get here, such as bench.example.net.");
  }
  const isSecure = tls !== null || trustedProxies.length > 0;
  const ports = named.flatMap((one) => (one?.[2] ? [Number(one[2])] : []));
  const usual = isSecure ? [443] : [];
  const metrics = environment.PALE_CAP_METRICS_PORT;
  return {
    ...{ mode: asked, listen, isLoopback, tls, trustedProxies, isSecure },
    servedAt: {
      hosts: [...loopbackNames, ...named.flatMap((one) => (one?.[1] ? [one[1]] : []))],
      ports: [...frontPorts, ...ports, ...usual],
      isSecure,
    },
    metricsPort: metrics ? portOf(metrics) : null,
  };
}

function tlsFrom({ PALE_CAP_TLS_CERT: cert, PALE_CAP_TLS_KEY: key }: Environment): Serving["tls"] {
  if (!cert && !key) return null;
  if (!cert || !key) throw new StartRefused("PALE_CAP_TLS_CERT and PALE_CAP_TLS_KEY belong together.");
  try {
    return { cert: readFileSync(cert), key: readFileSync(key) };
  } catch (error) {
    throw new StartRefused(`The certificate or its key cannot be read: ${(error as Error).message}`);
  }
}

function portOf(text: string): number {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535) {
    throw new StartRefused(`PALE_CAP_METRICS_PORT must be a number from 1 to 65535, not "${text}".`);
  }
  return port;
}

const listOf = (text = ""): readonly string[] =>
  text
    .split(",")
    .map((one) => one.trim())
    .filter(Boolean);
