// @vitest-environment happy-dom
import { MantineProvider } from "@mantine/core";
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { shellUpdate } from "../../offline/shellUpdate";
import { UpdateNote } from "./UpdateNote";

afterEach(cleanup);

it("a newer client is told and taken when a person says so, never by itself", () => {
  render(
    <MantineProvider>
      <UpdateNote />
    </MantineProvider>,
  );
  expect(screen.queryByRole("status")).toBeNull();
  const take = vi.fn();
  act(() => shellUpdate.found(take));
  expect([screen.getByRole("status").textContent, take.mock.calls.length]).toEqual([
    expect.stringContaining("A newer Pale Cap is here"),
    0,
  ]);
  fireEvent.click(screen.getByText("Take it"));
  expect(take).toHaveBeenCalledTimes(1);
});
