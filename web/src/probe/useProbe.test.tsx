// @vitest-environment happy-dom
import type { InstrumentState } from "@pale-cap/contract";
import { type SampleDetail, sampleDetail } from "@pale-cap/contract/testing";
import {
  sampleCharge,
  sampleNet,
  samplePart,
  samplePosition,
  sampleReading,
  sampleStore,
} from "@pale-cap/core/testing";
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { sampleView, underJob } from "../../testing/sampleView";
import { store } from "../app/store/store";
import { habitsSet, type ProbeTarget, probeSet, targetSelected } from "../job/workplaceSlice";
import { instrumentApi } from "./instruments/instrumentApi";
import { stateTold } from "./instruments/instrumentSlice";
import { useProbe } from "./useProbe";

const submitted = vi.hoisted(() => vi.fn());
vi.mock("../outbox/outbox", () => ({ outbox: { submit: submitted } }));

const reads = { esr: "ESR" } as const;
const board = {
  nets: [sampleNet(), sampleNet({ id: "net-b", name: "bulk", section: "bulk", nominalVolts: 325 })],
  positions: [
    samplePosition("C1"),
    samplePosition("C2"),
    samplePosition("C9", { netId: "net-b" }),
    samplePosition("D1", { kind: "diode" }),
  ],
  fittedParts: [samplePart("C1"), samplePart("C2"), samplePart("C9")],
};
/** Nothing on 12 V was charged a moment ago: the bar need not ask for volts. */
const drained = sampleReading("C1", { quantity: "dc_voltage", value: 0.2 });

function probing(target: ProbeTarget, more: SampleDetail = { readings: [drained] }) {
  const view = sampleView(sampleDetail({ ...board, ...more }));
  store.dispatch(targetSelected({ jobId: "job-1", target }));
  return renderHook(() => useProbe(), { wrapper: underJob(() => view) }).result;
}
const part = (designator: string, terminals?: string): ProbeTarget => ({
  kind: "part",
  id: `at-${designator}`,
  ...(terminals && { terminals }),
});
const selected = () => store.getState().workplace.targets["job-1"];
const lastBody = () => submitted.mock.lastCall?.[0].body;

beforeEach(() => {
  // What is asked of the server meanwhile, such as its benches, has no answer here.
  vi.stubGlobal("fetch", () => new Promise(() => undefined));
  localStorage.clear();
  submitted.mockClear();
  store.dispatch(probeSet({ quantity: "esr", circuitState: "lead_lifted" }));
  store.dispatch(habitsSet({ isFollowing: false, isHolding: false, isTone: false }));
});
afterEach(cleanup);

describe("typing into the bar", () => {
  it("logs the number as it was understood, keeps the text beside it, and goes on to the next part", () => {
    const bar = probing(part("C1"));
    act(() => void store.dispatch(probeSet({ circuitState: "lead_lifted" })));
    act(() => bar.current.setText("41"));
    // Milliohms are expected of this part: a bare number takes them.
    expect(bar.current.printedUnit).toBe("mΩ");
    expect(bar.current.value).toBeCloseTo(0.041, 12);
    act(() => bar.current.log(true));
    expect(lastBody()).toMatchObject({
      ...{ targetId: "at-C1", fittedPartId: "part-C1", quantity: "esr", rawText: "41", isPowered: false },
      ...{ circuitState: "lead_lifted", frequencyHertz: 100e3, instrument: null },
    });
    expect(lastBody().value).toBeCloseTo(0.041, 12);
    // Lifted it is read whole: its C comes next, and only then the neighbour, in circuit as that one is.
    expect([selected(), bar.current.quantity]).toEqual([part("C1"), "capacitance"]);
    act(() => bar.current.setText("980"));
    act(() => bar.current.log(true));
    expect(lastBody()).toMatchObject({ targetId: "at-C1", quantity: "capacitance", circuitState: "lead_lifted" });
    expect([selected(), bar.current.quantity, bar.current.text]).toEqual([part("C2"), "esr", ""]);
    expect(store.getState().workplace.probe.circuitState).toBe("in_circuit");
    act(() => bar.current.step(-1));
    expect(store.getState().workplace.probe.circuitState).toBe("lead_lifted");
  });
  it("asks about a bare number that slipped by a thousand: one key each way, and none where its unit was typed", () => {
    const fresh = () => {
      store.dispatch(probeSet({ quantity: "esr" }));
      return probing(part("C1"));
    };
    const bar = fresh();
    act(() => bar.current.setText("0.3"));
    act(() => bar.current.log(true));
    expect(submitted).not.toHaveBeenCalled();
    expect(bar.current.slipAsked).toEqual({ value: expect.closeTo(0.0003, 9), other: expect.closeTo(0.3, 9) });
    act(() => bar.current.logOther());
    expect(lastBody().value).toBeCloseTo(0.3, 9);
    expect(bar.current.slipAsked).toBeNull();
    cleanup();
    const again = fresh();
    act(() => again.current.setText("0.3"));
    act(() => again.current.log(true));
    act(() => again.current.log(true));
    expect(lastBody().value).toBeCloseTo(0.0003, 9);
    cleanup();
    const spelled = fresh();
    submitted.mockClear();
    act(() => spelled.current.setText("0.3m"));
    act(() => spelled.current.log(true));
    expect(submitted).toHaveBeenCalledTimes(1);
  });
  it("goes on at once where the part is in circuit: its C says nothing there", () => {
    const bar = probing(part("C1"));
    act(() => void store.dispatch(probeSet({ circuitState: "in_circuit" })));
    act(() => bar.current.setText("41"));
    act(() => bar.current.log(true));
    expect([selected(), bar.current.quantity]).toEqual([part("C2"), "esr"]);
  });
  it("reads a rail unloaded, loaded, its ripple, and then the next output, never the mains side", () => {
    const rail = { kind: "rail", id: "net-12" } as const;
    const nets = [...board.nets, sampleNet({ id: "net-5", name: "5 V", nominalVolts: 5, fullLoadAmps: 2 })];
    const bar = probing(rail, { nets });
    act(() => void store.dispatch(probeSet({ quantity: "dc_voltage" })));
    const log = (text: string) => {
      act(() => bar.current.setText(text));
      act(() => bar.current.log(true));
      return [selected()?.id, bar.current.quantity, store.getState().workplace.probe.loadAmps];
    };
    expect(log("12.1")).toEqual(["net-12", "dc_voltage", 4]);
    expect(log("11.9")).toEqual(["net-12", "ripple_voltage", 4]);
    expect(lastBody()).toMatchObject({ loadAmps: 4, isPowered: true });
    expect(log("30")).toEqual(["net-5", "dc_voltage", 0]);
    expect([log("5"), log("5"), log("20")].at(-1)).toEqual(["net-12", "dc_voltage", 0]);
  });
  it("stores nothing under a load that is not understood, by hand or by itself; a part is read beside it", () => {
    const bar = probing({ kind: "rail", id: "net-12" });
    act(() => void store.dispatch(probeSet({ quantity: "dc_voltage" })));
    act(() => bar.current.setLoadUnderstood(false));
    act(() => bar.current.setText("11.9"));
    act(() => bar.current.log(true));
    expect([bar.current.isLoadMissing, submitted.mock.calls.length, bar.current.text]).toEqual([true, 0, "11.9"]);
    act(() => bar.current.setLoadUnderstood(true));
    act(() => bar.current.log(true));
    expect(submitted).toHaveBeenCalledOnce();
    act(() => bar.current.setLoadUnderstood(false));
    act(() => void store.dispatch(targetSelected({ jobId: "job-1", target: part("C2") })));
    act(() => bar.current.setText("41m"));
    act(() => bar.current.log(true));
    expect(lastBody()).toMatchObject({ targetId: "at-C2", loadAmps: null });
  });
  it("begins a rail without the load of the one before", () => {
    const nets = [...board.nets, sampleNet({ id: "net-5", name: "5 V", nominalVolts: 5 })];
    const bar = probing({ kind: "rail", id: "net-12" }, { nets });
    act(() => void store.dispatch(probeSet({ quantity: "dc_voltage", loadAmps: 4 })));
    act(() => void store.dispatch(targetSelected({ jobId: "job-1", target: { kind: "rail", id: "net-5" } })));
    act(() => bar.current.setText("5.02"));
    act(() => bar.current.log(true));
    expect(lastBody()).toMatchObject({ targetId: "net-5", loadAmps: 0 });
  });
  it("asks a part for its ESR again after a rail's volts, and a rail for volts after a part", () => {
    const bar = probing({ kind: "rail", id: "net-12" });
    act(() => void store.dispatch(probeSet({ quantity: "dc_voltage" })));
    act(() => void store.dispatch(targetSelected({ jobId: "job-1", target: part("C2") })));
    expect(bar.current.quantity).toBe("esr");
    act(() => void store.dispatch(targetSelected({ jobId: "job-1", target: { kind: "rail", id: "net-12" } })));
    expect(bar.current.quantity).toBe("dc_voltage");
  });
  it("takes a quantity that is named before the number, and another decade", () => {
    const bar = probing(part("C1"));
    act(() => bar.current.setText("c 820"));
    expect([bar.current.quantity, bar.current.printedUnit]).toEqual(["capacitance", "µF"]);
    act(() => bar.current.setText("41"));
    act(() => bar.current.shiftDecade(1));
    expect(bar.current.value).toBe(41);
    act(() => bar.current.shiftDecade(5));
    act(() => bar.current.shiftDecade(-1));
    expect(bar.current.value).toBe(41);
    // The next part of the section is read in the same prefix; one elsewhere in its own.
    act(() => bar.current.step(1));
    act(() => bar.current.setText("41"));
    expect([selected(), bar.current.value]).toEqual([part("C2"), 41]);
    act(() => bar.current.shiftDecade(-1));
    expect(bar.current.value).toBeCloseTo(0.041, 9);
  });
  it("logs nothing that it does not understand, and keeps it", () => {
    const bar = probing(part("C1"));
    act(() => bar.current.setText("fourty"));
    expect([bar.current.hasValue, bar.current.problem]).toEqual([false, expect.stringContaining("Ω")]);
    act(() => bar.current.log(true));
    expect(submitted).not.toHaveBeenCalled();
    expect(bar.current.text).toBe("fourty");
    expect(selected()).toEqual(part("C1"));
  });
  it("keeps what was typed with its part", () => {
    const bar = probing(part("C1"));
    act(() => bar.current.setText("41"));
    act(() => bar.current.step(1));
    expect(bar.current.text).toBe("");
    act(() => bar.current.step(-1));
    expect(bar.current.text).toBe("41");
  });
});

describe("volts before ohms", () => {
  const charged = {
    energyStores: [sampleStore({ positionId: "at-C9" })],
    chargeEvents: [sampleCharge("mains_connected", 0)],
  };
  it("asks for DC volts on a part that may be charged, and stays there for what was wanted", () => {
    const bar = probing(part("C9"), charged);
    expect(bar.current.voltsAsked).toMatchObject({ isNeeded: true, lastVolts: null });
    expect(bar.current.quantity).toBe("dc_voltage");
    act(() => bar.current.setText("2.1"));
    act(() => bar.current.log(true));
    expect(lastBody()).toMatchObject({ quantity: "dc_voltage", value: 2.1 });
    expect(selected()).toEqual(part("C9"));
  });
  it("lets a person go their own way, on that part alone", () => {
    const bar = probing(part("C9"), charged);
    act(() => bar.current.goOwnWay());
    expect([bar.current.voltsAsked, bar.current.quantity]).toEqual([null, "esr"]);
    act(() => bar.current.step(1));
    expect(bar.current.voltsAsked).not.toBeNull();
  });
  it("takes no ohms on a store of which nothing is known, whatever a person wants, and keeps what was typed", () => {
    const bar = probing(part("C9"), charged);
    act(() => bar.current.goOwnWay());
    act(() => bar.current.setText("r 33k"));
    expect([bar.current.quantity, bar.current.ohmsRefused?.isRefused]).toEqual(["resistance", true]);
    act(() => bar.current.log(true));
    expect(submitted).not.toHaveBeenCalled();
    expect(bar.current.text).toBe("r 33k");
  });
  it("marks ohms, C and leakage that were read while the drain hung on", () => {
    const isDrainOn = { isMeterProved: true, isDrainOn: true, volts: 1 };
    const bar = probing(part("C9"), {
      ...charged,
      chargeEvents: [sampleCharge("voltage_measured", 0, isDrainOn)],
    });
    act(() => bar.current.setText("c 100"));
    act(() => bar.current.log(true));
    expect(lastBody().rig).toMatchObject({ isDrainOn: true });
  });
  it("does not ask where the net was read low, nor before a word or a temperature", () => {
    expect(probing(part("C2")).current.voltsAsked).toBeNull();
    cleanup();
    store.dispatch(probeSet({ quantity: "temperature" }));
    expect(probing(part("C9"), charged).current.voltsAsked).toBeNull();
  });
});

describe("what the bar reads on a part that is no capacitor", () => {
  it("is the test between its pins", () => {
    const bar = probing(part("D1", "A,K"));
    expect([bar.current.quantity, bar.current.unit]).toEqual(["diode_drop", "V"]);
    act(() => bar.current.setText("0.55"));
    act(() => bar.current.log(true));
    expect(lastBody()).toMatchObject({ quantity: "diode_drop", terminals: "A,K", value: 0.55, fittedPartId: null });
    expect(selected()).toEqual(part("D1", "K,A"));
  });
});

describe("the preview", () => {
  it("says what the verdict would be with what is typed, of the part that sits there now", () => {
    const bar = probing(part("C1"));
    expect(bar.current.wouldBe?.verdict).toBe("not_measured");
    act(() => bar.current.setText("600"));
    expect(bar.current.wouldBe?.verdict).toBe("failed");
    act(() => bar.current.setText(""));
    cleanup();
    const swapped = [
      samplePart("C1", { removedAt: "2026-11-23T10:10:00Z" }),
      samplePart("C1", { id: "fresh", origin: "replacement" }),
    ];
    const old = sampleReading("C1", { value: 0.6 });
    const after = probing(part("C1"), { fittedParts: swapped, readings: [drained, old] });
    expect(after.current.wouldBe?.verdict).toBe("not_measured");
    expect(probing({ kind: "rail", id: "net-12" }).current.wouldBe).toBeUndefined();
  });
});

describe("taking back", () => {
  it("withdraws the last standing reading of the target, and nothing of another", () => {
    const [first, last] = [sampleReading("C1", { value: 0.05 }), sampleReading("C1", { value: 0.06 })];
    const bar = probing(part("C1"), { readings: [first, last, sampleReading("C2")] });
    act(() => bar.current.undo());
    expect(lastBody()).toMatchObject({ isWithdrawn: true, supersedesId: last.id, targetId: "at-C1" });
    cleanup();
    const nothing = probing(part("C9"), { readings: [first] });
    submitted.mockClear();
    act(() => nothing.current.undo());
    expect(submitted).not.toHaveBeenCalled();
  });
});

it("a live value stands in the empty field, is logged with its instrument, and gives way to what is typed", () => {
  const meter = {
    ...{ id: "lcr", kind: "lcr", name: "LCR meter", status: "ready", trouble: null, benchId: "here" },
    reading: {
      ...{ function: reads.esr, points: "C1", circuitState: "lead_lifted", frequencyHertz: 100e3 },
      ...{ value: 0.0432, raw: "+4.320E-02", isSteady: true, at: "2026-11-23T10:30:00Z" },
    },
  } as unknown as InstrumentState;
  store.dispatch(stateTold(meter));
  const bench = { id: "here", version: 1, name: "Bench 1", simulatedSet: 0, practiceJobId: null };
  store.dispatch(
    instrumentApi.util.upsertQueryEntries([{ endpointName: "workbenches", arg: undefined, value: [bench] }]),
  );
  const bar = probing(part("C1"));
  expect(bar.current.live.instrument?.name).toBe("LCR meter");
  act(() => bar.current.log(false));
  expect(lastBody()).toMatchObject({ value: 0.0432, rawText: "+4.320E-02", instrument: "LCR meter" });
  act(() => bar.current.setText("50"));
  act(() => bar.current.log(false));
  expect(lastBody()).toMatchObject({ rawText: "50", instrument: null });
  expect(lastBody().value).toBeCloseTo(0.05, 12);
});
