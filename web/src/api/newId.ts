import { v7 } from "uuid";

/** An id for something that a person does: made here, ordered by time, so that a retry cannot double it. */
export const newId = (): string => v7();
