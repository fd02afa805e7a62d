import { createHash, randomBytes } from "node:crypto";
import { hash, verify } from "@node-rs/argon2";

/**
 * Argon2id with 19 MiB, two passes, one lane: the lower of the two settings that OWASP's cheat sheet on password storage names, so
 * that several people can sign in at once on a small machine.
 */
const strength = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

export const hashSecret = (secret: string): Promise<string> => hash(secret, strength);

/** What nobody's password is held against, so that an unknown name takes as long as a wrong password. */
let nobodys: Promise<string> | null = null;

/** Whether a password or PIN is the one; against nothing it is never. */
export async function isSecret(stored: string | null, typed: string): Promise<boolean> {
  nobodys ??= hashSecret(randomBytes(16).toString("hex"));
  const isRight = await verify(stored ?? (await nobodys), typed).catch(() => false);
  return stored !== null && isRight;
}

/** A token that is shown once; what is kept of it cannot be turned back. */
export const newToken = (): string => randomBytes(24).toString("base64url");
export const tokenHash = (token: string): string => createHash("sha256").update(token).digest("hex");
