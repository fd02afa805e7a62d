import { PasswordInput, type PasswordInputProps } from "@mantine/core";
import text from "./text.module.css";

/** A password that is being chosen, with what makes a good one. */
export function NewPassword({ hint, ...rest }: PasswordInputProps & { readonly hint?: string }) {
  return (
    <>
      <PasswordInput autoComplete="new-password" {...rest} />
      <p className={text.soft}>Ten characters or more; a few words are easier than signs. {hint}</p>
    </>
  );
}
