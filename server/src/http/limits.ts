import { routes } from "@pale-cap/contract";
import type { Request, RequestHandler } from "express";
import { ipKeyGenerator, rateLimit } from "express-rate-limit";
import { HttpProblem } from "./problems";

const minute = 60_000;

/**
 * So many requests of each kind in each stretch of time; counted by each server process for itself. A technician who logs as fast as
 * hands allow sends some hundred a minute.
 */
export const usualLimits = {
  session: { windowMs: minute, limit: 1500 },
  /** Many browsers may come from one address, through one router. */
  address: { windowMs: minute, limit: 9000 },
  secrets: { windowMs: 10 * minute, limit: 120 },
  uploads: { windowMs: 10 * minute, limit: 240 },
} as const;
export type Limits = {
  readonly [K in keyof typeof usualLimits]: { readonly windowMs: number; readonly limit: number };
};

const secretPaths: readonly string[] = [
  routes.session,
  routes.sessionPerson,
  routes.sessionPassword,
  routes.sessionPin,
  routes.oneTimeLink,
  routes.oneTimeLinkUse,
];
const isSecret = ({ method, baseUrl, path }: Request) =>
  method !== "GET" && method !== "DELETE" && secretPaths.includes(`${baseUrl}${path}`);
const isUpload = (request: Request) => request.is("multipart/form-data") === "multipart/form-data";

const byAddress = (request: Request) => ipKeyGenerator(request.ip ?? "unknown");
/** A browser without a session counts with its address. */
const bySession = (request: Request) => (request.session?.openedBy ? request.sessionID : byAddress(request));

/** Limits for a shop's network; what is refused says nothing against the entry, which waits in the browser. */
export function rateLimits(limits: Limits = usualLimits): readonly RequestHandler[] {
  const one = (
    name: keyof Limits,
    keyGenerator: (request: Request) => string,
    isCounted: (request: Request) => boolean = () => true,
  ): RequestHandler =>
    rateLimit({
      ...limits[name],
      keyGenerator,
      skip: (request) => !isCounted(request),
      standardHeaders: "draft-8",
      legacyHeaders: false,
      handler: (_request, _response, next) =>
        next(new HttpProblem("too_many", "Too many requests in a short time. Nothing was stored; it is sent again.")),
    });
  return [
    one("address", byAddress),
    one("session", bySession),
    one("secrets", byAddress, isSecret),
    one("uploads", bySession, isUpload),
  ];
}
