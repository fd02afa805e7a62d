import { Button, NativeSelect, TextInput } from "@mantine/core";
import type { NewEnergyStore, Problem } from "@pale-cap/contract";
import {
  energyStoreOffers,
  expectedStoreVolts,
  type StoreFeed,
  type StoreKind,
  type StoreOffer,
  storeFeeds,
  storeKinds,
  storeOfPosition,
} from "@pale-cap/core";
import { feedLabels, listWords, storeKindLabels } from "@pale-cap/wording";
import { useMemo, useState } from "react";
import { newId } from "../../api/newId";
import { useJob } from "../../job/JobContext";
import { useInTurn } from "../../job/useInTurn";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import { useDraft } from "../../ui/useDraft";
import { useInvalidFields } from "../../ui/useInvalidFields";
import classes from "./makeSafe.module.css";
import { useAddEnergyStoreMutation } from "./storeApi";

interface Draft extends Omit<NewEnergyStore, "drainOhms"> {
  readonly feed: StoreFeed | null;
  readonly mainsVoltsRms: number | null;
}

/** How a kind is usually fed; an output bank is not fed from the mains. */
const usualFeeds: Readonly<Record<StoreKind, StoreFeed | null>> = {
  bulk: "bridge",
  pfc_bulk: "pfc",
  series_half: "doubler_half",
  series_pair: "doubler_half",
  x_capacitor: "line",
  output_bank: null,
  other: null,
};

/** A bulk behind a bridge charges to the crest of the mains. */
function emptyDraft(mainsVoltsRms: number): Draft {
  return withFeed(
    {
      id: newId(),
      name: "Bulk",
      kind: "bulk",
      positionId: null,
      netId: null,
      capacitanceFarads: null,
      expectedVolts: null,
      bleederOhms: null,
      feed: "bridge",
      mainsVoltsRms,
    },
    {},
  );
}

/** The expected voltage follows from feed and mains; a typed one stands by itself. */
function withFeed(draft: Draft, more: Partial<Draft>): Draft {
  const next = { ...draft, ...more };
  if (next.feed === null || next.mainsVoltsRms === null) return next;
  return { ...next, expectedVolts: Math.round(expectedStoreVolts(next.feed, next.mainsVoltsRms)) };
}

/** Names an energy store: what it holds and the voltage to expect. What the board tells of is offered. */
export function StoreForm() {
  const { detail, shown, houseRules } = useJob();
  const mainsVolts = houseRules["mains.voltsRms"];
  const [add, { isLoading }] = useAddEnergyStoreMutation();
  const [problem, setProblem] = useState<Problem>();
  const inTurn = useInTurn();
  const start = useMemo(() => emptyDraft(mainsVolts), [mainsVolts]);
  const [draft, setDraft, dropDraft] = useDraft(`${detail.job.id} store`, start);
  const [invalid, validity] = useInvalidFields();
  const isValid = invalid.size === 0;
  const stores = detail.energyStores;
  const offers = energyStoreOffers(detail, mainsVolts).filter((offer) =>
    offer.positionId === null
      ? !stores.some((store) => store.netId === offer.netId)
      : storeOfPosition(detail, offer.positionId) === undefined,
  );
  const set = (more: Partial<Draft>) => setDraft((now) => ({ ...now, ...more }));
  const feedBy = (more: Partial<Draft>) => setDraft((now) => withFeed(now, more));

  function take(offer: StoreOffer) {
    const { designators, ...values } = offer;
    set({ ...values, name: `${storeKindLabels[offer.kind]} ${listWords(designators)}`, bleederOhms: null });
  }

  async function submit() {
    const { feed: _, mainsVoltsRms: __, ...store } = draft;
    // Two in series are two stores: a reading on one, or across both, clears neither of them.
    const wanted: Omit<NewEnergyStore, "id" | "drainOhms">[] =
      store.kind === "series_pair"
        ? ["upper", "lower"].map((half) => ({ ...store, kind: "series_half", name: `${store.name}, ${half}` }))
        : [store];
    for (const body of wanted) {
      const refusal = await inTurn(
        async () =>
          asProblem(
            (
              await add({
                jobId: detail.job.id,
                body: { ...body, id: newId(), boardId: shown.board.id, drainOhms: null },
              })
            ).error,
          ),
        (unsent) => unsent,
      );
      setProblem(refusal);
      if (refusal) return;
    }
    dropDraft(draft);
  }

  return (
    <Part title={stores.length === 0 ? "What holds charge?" : "Another store"}>
      <div className={classes.offers}>
        {offers.map((offer) => (
          <Button key={offer.positionId ?? offer.netId} size="xs" onClick={() => take(offer)}>
            {listWords(offer.designators)} from the board
          </Button>
        ))}
        {[120, 230].map((volts) => (
          <Button
            key={volts}
            size="xs"
            aria-pressed={draft.mainsVoltsRms === volts}
            variant={draft.mainsVoltsRms === volts ? "filled" : "default"}
            onClick={() => feedBy({ mainsVoltsRms: volts })}
          >
            {volts} V mains
          </Button>
        ))}
        {!stores.some((store) => store.kind === "x_capacitor") && (
          <Button
            size="xs"
            onClick={() =>
              feedBy({
                kind: "x_capacitor",
                name: storeKindLabels.x_capacitor,
                feed: "line",
                positionId: null,
                netId: null,
                capacitanceFarads: null,
              })
            }
          >
            X capacitor at the plug
          </Button>
        )}
      </div>
      <form
        className={classes.row}
        onSubmit={(event) => {
          event.preventDefault();
          if (isValid) void submit();
        }}
      >
        <TextInput label="Name" value={draft.name} onChange={(event) => set({ name: event.currentTarget.value })} />
        <NativeSelect
          label="Kind"
          value={draft.kind}
          data={storeKinds.map((kind) => ({ value: kind, label: storeKindLabels[kind] }))}
          description={draft.kind === "series_pair" ? "makes two stores; C and volts of each half" : undefined}
          onChange={(event) => {
            const kind = event.currentTarget.value as StoreKind;
            feedBy({ kind, feed: usualFeeds[kind] });
          }}
        />
        <QuantityInput
          label="Capacitance"
          unit="F"
          defaultPrefix="u"
          limits={[1e-9, 0.1]}
          value={draft.capacitanceFarads}
          onChange={(capacitanceFarads) => set({ capacitanceFarads })}
          onValidity={validity("farads")}
        />
        <NativeSelect
          label="Fed"
          value={draft.feed ?? ""}
          data={[
            { value: "", label: "not from the mains, or typed" },
            ...storeFeeds.map((feed) => ({ value: feed, label: feedLabels[feed] })),
          ]}
          onChange={(event) => feedBy({ feed: (event.currentTarget.value || null) as StoreFeed | null })}
        />
        <QuantityInput
          label="Mains"
          unit="V"
          limits={[24, 480]}
          value={draft.mainsVoltsRms}
          onChange={(mainsVoltsRms) => feedBy({ mainsVoltsRms })}
          onValidity={validity("mains")}
        />
        <QuantityInput
          label="Expected voltage"
          unit="V"
          limits={[1, 1000]}
          value={draft.expectedVolts}
          onChange={(expectedVolts) => set({ expectedVolts, feed: null })}
          onValidity={validity("volts")}
        />
        <QuantityInput
          label="Bleeder, if known"
          unit="Ω"
          limits={[100, 100e6]}
          value={draft.bleederOhms}
          onChange={(bleederOhms) => set({ bleederOhms })}
          onValidity={validity("bleeder")}
        />
        <Button type="submit" loading={isLoading} disabled={!isValid || draft.name.trim() === ""}>
          Add store
        </Button>
      </form>
      <ProblemNote problem={problem} />
    </Part>
  );
}
