// @vitest-environment happy-dom
import { MantineProvider } from "@mantine/core";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { CommittedText } from "./CommittedText";

const onCommit = vi.fn();
const field = (value: string) => (
  <MantineProvider>
    <CommittedText aria-label="Note" name="note" value={value} onCommit={onCommit} />
  </MantineProvider>
);
const input = () => screen.getByLabelText("Note") as HTMLInputElement;
const type = (value: string) => fireEvent.change(input(), { target: { value } });

beforeEach(() => {
  localStorage.clear();
  onCommit.mockClear();
});
afterEach(cleanup);

it("stores when it is left, and follows what is stored while nothing is typed", () => {
  const { rerender } = render(field("a"));
  rerender(field("b"));
  expect(input().value).toBe("b");
  type("c");
  fireEvent.blur(input());
  expect(onCommit.mock.calls).toEqual([["c"]]);
  // What comes back of it is its own, also while it is typed on.
  type("cd");
  rerender(field("c"));
  expect(screen.queryByRole("alert")).toBeNull();
  fireEvent.blur(input());
  expect(onCommit.mock.calls).toEqual([["c"], ["cd"]]);
});

it("stores nothing over what somebody else stored meanwhile: both stand there, also after the page was opened anew", () => {
  const first = render(field("a"));
  type("mine");
  first.rerender(field("theirs"));
  fireEvent.blur(input());
  first.unmount();
  expect(onCommit).not.toHaveBeenCalled();
  render(field("theirs"));
  expect([input().value, screen.getByRole("alert").textContent]).toEqual(["mine", expect.stringContaining("theirs")]);
  fireEvent.click(screen.getByText("Both"));
  expect(onCommit.mock.calls).toEqual([["theirs; mine"]]);
});

it("gives way, or stays, as a person says", () => {
  const { rerender } = render(field("a"));
  type("mine");
  rerender(field("theirs"));
  fireEvent.click(screen.getByText("Mine"));
  expect(onCommit.mock.calls).toEqual([["mine"]]);
  rerender(field("mine"));
  type("again");
  rerender(field("other"));
  fireEvent.click(screen.getByText("Theirs"));
  expect(input().value).toBe("other");
  expect(onCommit).toHaveBeenCalledTimes(1);
});
