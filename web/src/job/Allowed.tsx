import type { Right } from "@pale-cap/contract";
import { rightWords } from "@pale-cap/wording";
import type { ReactNode } from "react";
import text from "../ui/text.module.css";
import { useMay, useWho } from "./useMay";

/** What only some may do: for the others stands who does it. The server refuses them the same. */
export function Allowed({ right, children }: { readonly right: Right; readonly children: ReactNode }) {
  const who = useWho();
  if (useMay(right)) return children;
  return <p className={text.softLine}>{rightWords(right, who?.by ?? "password")}</p>;
}
