import type { InferType } from "yup";
import { fault } from "../faults";
import { boolean, idField, strictObject, string, textField, versionField, wordField } from "../fields/fields";
import { type AccountRole, accountRoles } from "../rights/rights";

export const leastPasswordLength = 10;
const mostPasswordLength = 200;

/** A new password: length is what counts; the same few characters over and over are no length. */
export const newPasswordField = () =>
  string()
    .required()
    .max(mostPasswordLength)
    .test(
      "long",
      fault("too_short", { least: leastPasswordLength }),
      (value) => (value ?? "").length >= leastPasswordLength,
    )
    .test("varied", fault("too_easy"), (value) => new Set(value).size >= 5);

/** A password as somebody types it to get in: it is only compared. */
export const typedPasswordField = () => string().required().max(mostPasswordLength);

/** A new PIN: 4 to 8 digits, neither one digit over and over nor counted up or down. */
export const newPinField = () =>
  string()
    .required()
    .matches(/^\d{4,8}$/, { message: fault("not_pin") })
    .test("varied", fault("too_easy"), (value) => !isEasyPin(value ?? ""));

/** As it is typed to take over a bench: it is only compared. */
export const typedPinField = () => string().required().max(16);

function isEasyPin(pin: string): boolean {
  const steps = new Set([...pin].slice(1).map((digit, n) => Number(digit) - Number(pin[n])));
  return steps.size === 1 && [-1, 0, 1].includes([...steps][0] ?? 0);
}

/** Under what name somebody signs in: in whatever letters it is typed, it is the same. */
export const loginField = () => textField(40);

/** Somebody who works here, as everybody sees them. */
export interface Person {
  readonly id: string;
  readonly name: string;
  /** Of their account; null where they have none. */
  readonly accountId: string | null;
  /** They can take over a bench by their PIN. */
  readonly hasPin: boolean;
}

/** An account as those see it who manage people. */
export interface Account {
  readonly id: string;
  readonly version: number;
  readonly personId: string;
  readonly name: string;
  readonly login: string;
  readonly role: AccountRole;
  readonly isActive: boolean;
  readonly hasPassword: boolean;
  readonly hasPin: boolean;
  /** Signed in now, at so many browsers. */
  readonly sessionCount: number;
  readonly lockedUntil: string | null;
}

/** A new account; of a person who is known already, or of a new one. */
export const newAccountSchema = strictObject({
  id: idField(),
  personId: idField(),
  name: textField(80),
  login: loginField(),
  role: wordField<AccountRole>(accountRoles),
});
export type NewAccount = InferType<typeof newAccountSchema>;

export const accountEditSchema = strictObject({
  writeId: idField(),
  version: versionField(),
  name: textField(80),
  login: loginField(),
  role: wordField<AccountRole>(accountRoles),
  isActive: boolean().required(),
});
export type AccountEdit = InferType<typeof accountEditSchema>;

export const signOutSchema = strictObject({ id: idField() });

/** What a one-time link is answered with, once: it is stored nowhere as it is read here. */
export interface MadeLink {
  readonly path: string;
  readonly expiresAt: string;
}
