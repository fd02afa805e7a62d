// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, it } from "vitest";
import { useTypedOver } from "./useTypedOver";

beforeEach(() => localStorage.clear());
afterEach(cleanup);

const typing = (value: string, text: string) =>
  renderHook((props: { value: string; text: string }) => useTypedOver("words", props.value, props.text), {
    initialProps: { value, text },
  });

it("is a conflict once another text is stored under what is typed, until a person has seen it", () => {
  const { result, rerender } = typing("a", "a");
  rerender({ value: "b", text: "b" });
  expect(result.current.isConflict).toBe(false);
  rerender({ value: "b", text: "mine" });
  expect(result.current.isConflict).toBe(false);
  rerender({ value: "theirs", text: "mine" });
  expect(result.current.isConflict).toBe(true);
  act(() => result.current.seen());
  expect(result.current.isConflict).toBe(false);
  // And again, for what comes after.
  rerender({ value: "theirs, longer", text: "mine" });
  expect(result.current.isConflict).toBe(true);
});

it("is none where what comes back was sent from here", () => {
  const { result, rerender } = typing("a", "mine");
  result.current.sent("mine");
  rerender({ value: "mine", text: "mine and more" });
  expect(result.current.isConflict).toBe(false);
});

it("knows after the page was opened anew over what it was typed", () => {
  typing("a", "mine").unmount();
  expect(typing("theirs", "mine").result.current.isConflict).toBe(true);
  expect(typing("a", "mine").result.current.isConflict).toBe(false);
});
