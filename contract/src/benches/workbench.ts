import type { InferType } from "yup";
import { boolean, idField, strictObject, textField, versionField } from "../fields/fields";

/** A place of work with its instruments; one of a practice job is its own. */
export interface Workbench {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  /** Which set of simulated instruments is its, from 0 on. */
  readonly simulatedSet: number;
  readonly practiceJobId: string | null;
}

/** A new bench; with simulated instruments of its own where they are wanted. */
export const newWorkbenchSchema = strictObject({
  id: idField(),
  name: textField(40),
  hasSimulated: boolean().required(),
});
export type NewWorkbench = InferType<typeof newWorkbenchSchema>;

export const workbenchEditSchema = strictObject({ writeId: idField(), version: versionField(), name: textField(40) });

/** A job is laid on a bench, or taken off it. */
export const benchJobSchema = strictObject({ writeId: idField() });

/** A bench with who is at it and what lies on it. */
export interface BenchPlace {
  readonly id: string;
  readonly name: string;
  readonly instrumentCount: number;
  readonly people: readonly { readonly personId: string; readonly name: string }[];
  readonly jobs: readonly {
    readonly id: string;
    readonly number: number;
    readonly deviceKind: string;
    readonly deviceMaker: string | null;
    readonly deviceModel: string | null;
  }[];
}
