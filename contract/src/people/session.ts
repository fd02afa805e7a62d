import type { InferType } from "yup";
import { idField, nullableId, nullableText, strictObject, string } from "../fields/fields";
import type { Right, Role } from "../rights/rights";
import { loginField, newPasswordField, newPinField, typedPasswordField, typedPinField } from "./account";

/** Alone: a machine's own address, nobody signs in. Shop: accounts, roles, benches. */
export type RunMode = "alone" | "shop";

/** Who is at this browser, and what they may. */
export interface SignedIn {
  readonly accountId: string | null;
  readonly personId: string | null;
  readonly name: string;
  readonly role: Role;
  readonly rights: readonly Right[];
  /** How they came: a PIN opens less than a password. */
  readonly by: "password" | "pin";
  readonly benchId: string | null;
  readonly hasPin: boolean;
}

export interface SessionState {
  readonly mode: RunMode;
  /** null: nobody is signed in. */
  readonly who: SignedIn | null;
  /** Somebody signed in here by their password and left the bench: a PIN opens it again. */
  readonly isBenchOpen: boolean;
  /** Who can take it over so; told only at a bench that is open. */
  readonly takers: readonly { readonly accountId: string; readonly name: string }[];
  /** No account was made yet: the console shows the link for the first. */
  readonly isFirstStart: boolean;
}

export const signInSchema = strictObject({
  login: loginField(),
  password: typedPasswordField(),
  benchId: nullableId(),
});
export type SignIn = InferType<typeof signInSchema>;

/** Another person takes over a bench that is signed in. */
export const personChangeSchema = strictObject({ accountId: idField(), pin: typedPinField() });
export type PersonChange = InferType<typeof personChangeSchema>;

export const benchChangeSchema = strictObject({ benchId: nullableId() });

export const passwordChangeSchema = strictObject({ password: typedPasswordField(), newPassword: newPasswordField() });
export type PasswordChange = InferType<typeof passwordChangeSchema>;

/** One's own PIN, new, changed or (null) taken away; the password says who asks. */
export const pinChangeSchema = strictObject({
  password: typedPasswordField(),
  newPin: newPinField().nullable().defined(),
});
export type PinChange = InferType<typeof pinChangeSchema>;

const tokenField = () => string().required().max(100);
export const linkLookSchema = strictObject({ token: tokenField() });
/** What a link is for: the first lead names themselves, everybody else is known. */
export interface LinkState {
  readonly purpose: "first_lead" | "set_password";
  readonly name: string | null;
  readonly login: string | null;
}

export const linkUseSchema = strictObject({
  token: tokenField(),
  /** Of the first lead alone. */
  name: nullableText(80),
  login: nullableText(40),
  newPassword: newPasswordField(),
});
export type LinkUse = InferType<typeof linkUseSchema>;
