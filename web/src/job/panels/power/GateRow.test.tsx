// @vitest-environment happy-dom
import { MantineProvider } from "@mantine/core";
import { sampleDetail } from "@pale-cap/contract/testing";
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { sampleView, underJob } from "../../../../testing/sampleView";
import { GateRow } from "./GateRow";

/** A server that answers when the test lets it. */
const server = vi.hoisted(() => ({ answer: (_isStored: boolean) => {} }));
vi.mock("./useLogPower", () => ({
  useLogPower: () => [() => new Promise<boolean>((done) => (server.answer = done)), { isLoading: false }],
}));
const bulk = { item: "bulk", subjectId: null, designator: null, state: "open", check: null } as const;
const field = () => screen.getByRole<HTMLInputElement>("textbox");

afterEach(() => {
  cleanup();
  localStorage.clear();
});

function typed(text: string) {
  fireEvent.change(field(), { target: { value: text } });
}

describe("a test before power", () => {
  it("keeps what was typed while the number before it was being stored, and what was refused", async () => {
    window.matchMedia ??= (() => ({ matches: false, addListener() {}, removeListener() {} })) as never;
    const view = sampleView(sampleDetail());
    render(
      <MantineProvider>
        <GateRow demand={bulk} isRefused={false} />
      </MantineProvider>,
      { wrapper: underJob(() => view) },
    );
    typed("470k");
    fireEvent.submit(field());
    typed("ol");
    await act(async () => server.answer(true));
    expect(field().value).toBe("ol");
    fireEvent.submit(field());
    await act(async () => server.answer(false));
    expect(field().value).toBe("ol");
    fireEvent.submit(field());
    await act(async () => server.answer(true));
    expect(field().value).toBe("");
  });
});
