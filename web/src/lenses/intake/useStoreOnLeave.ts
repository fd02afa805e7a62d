import type { UseFormReturnType } from "@mantine/form";
import { notifications } from "@mantine/notifications";
import { type Intake, intakeSchema } from "@pale-cap/contract";
import { type RefObject, useEffect, useRef } from "react";
import { newId } from "../../api/newId";
import { store } from "../../app/store/store";
import { inJobTurn } from "../../outbox/jobTurns";
import { asProblem } from "../../ui/ProblemNote";
import { writeDraft } from "../../ui/useDraft";
import { intakeApi } from "./intakeApi";
import { fieldName, withoutEmpty } from "./intakeOf";

/** Where the contract's own rules do not take what was typed. */
function wrongPaths(values: Intake): readonly string[] {
  try {
    intakeSchema.validateSync(withoutEmpty(values), { abortEarly: false, strict: true });
    return [];
  } catch (error) {
    const { inner = [] } = error as { readonly inner?: readonly { readonly path?: string }[] };
    return inner.map((one) => one.path ?? "");
  }
}

/**
 * Leaving intake with something unsaved stores what is valid and says what is not; that stays in the form's draft and
 * stands there again.
 */
export function useStoreOnLeave(
  jobId: string,
  form: UseFormReturnType<Intake>,
  version: RefObject<number>,
  invalid: ReadonlySet<string>,
): void {
  const leave = useRef<() => void>(() => undefined);
  leave.current = () => {
    if (!form.isDirty()) return;
    const wrong = new Set(wrongPaths(form.getValues()).map((path) => path.split(/[.[]/)[0] as keyof Intake));
    const stored = form.getInitialValues();
    const kept = Object.fromEntries([...wrong].map((field) => [field, stored[field]]));
    const said = [...[...wrong].map(fieldName), ...invalid];
    const typed = form.getValues();
    const values = withoutEmpty({ ...typed, ...kept });
    void inJobTurn(jobId, async () => {
      const body = { writeId: newId(), version: version.current, values };
      const answer = await store.dispatch(intakeApi.endpoints.editIntake.initiate({ jobId, body }));
      const problem = asProblem(answer.error);
      // A number that was not understood is kept by its own field.
      if (answer.data) {
        writeDraft(`${jobId} intake`, { values: typed, version: answer.data.version }, wrong.size === 0);
      }
      const message = problem
        ? `Intake was not stored: ${problem.detail} What you typed stands in Intake.`
        : said.length > 0
          ? `Intake was stored, but for: ${said.join(", ")}. That stands in Intake as you typed it.`
          : "Intake was stored.";
      notifications.show({ message, color: problem || said.length > 0 ? "orange" : "gray", autoClose: 6000 });
    });
  };
  useEffect(() => () => leave.current(), []);
}
