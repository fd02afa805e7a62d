import { Button, NativeSelect, SegmentedControl, TextInput } from "@mantine/core";
import {
  boardLimits,
  type FeedKind,
  feedKinds,
  type IntakeDetails,
  type LabelPlate,
  type PlugPolarity,
  plugPolarities,
} from "@pale-cap/contract";
import { type DeviceKind, deviceProfiles, topologies } from "@pale-cap/core";
import { feedKindLabels, plugLabels, topologyLabels } from "@pale-cap/wording";
import { memo } from "react";
import { Part } from "../../ui/Pane";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./intake.module.css";
import { PlugDrawing } from "./PlugDrawing";

interface LabelPlateCardProps {
  readonly kind: DeviceKind;
  readonly details: IntakeDetails;
  readonly onChange: (details: IntakeDetails) => void;
  readonly validity: (name: string) => (isValid: boolean) => void;
}

/** What the label says: input, rails, plug, temperature. What the kind usually has is offered, never imposed. */
export const LabelPlateCard = memo(function LabelPlateCard({ kind, details, onChange, validity }: LabelPlateCardProps) {
  const { labelPlate } = details;
  const profile = deviceProfiles[kind];
  const set = (more: Partial<LabelPlate>) => onChange({ ...details, labelPlate: { ...labelPlate, ...more } });
  const feed = details.feed ?? { kind: null, volts: null };
  const setFeed = (more: Partial<typeof feed>) => onChange({ ...details, feed: { ...feed, ...more } });
  const setRail = (index: number, more: Partial<LabelPlate["rails"][number]>) =>
    set({ rails: labelPlate.rails.map((rail, one) => (one === index ? { ...rail, ...more } : rail)) });
  const combined = labelPlate.combined ?? [];
  const setCombined = (index: number, more: Partial<(typeof combined)[number]>) =>
    set({ combined: combined.map((one, at) => (at === index ? { ...one, ...more } : one)) });
  return (
    <Part title="Label plate" aside={<span className={text.dim}>everything may be unknown</span>}>
      <div className={classes.row}>
        <QuantityInput
          label="Input from"
          unit="V"
          limits={[5, 500]}
          value={labelPlate.inputVoltsLow}
          onChange={(inputVoltsLow) => set({ inputVoltsLow })}
          onValidity={validity("inputVoltsLow")}
        />
        <QuantityInput
          label="Input to"
          unit="V"
          limits={[5, 500]}
          value={labelPlate.inputVoltsHigh}
          onChange={(inputVoltsHigh) => set({ inputVoltsHigh })}
          onValidity={validity("inputVoltsHigh")}
        />
        <QuantityInput
          label="Input current"
          unit="A"
          limits={[0.001, 50]}
          value={labelPlate.inputAmps}
          onChange={(inputAmps) => set({ inputAmps })}
          onValidity={validity("inputAmps")}
        />
        <QuantityInput
          label="Temperature limit"
          unit="°C"
          limits={[-40, 150]}
          value={labelPlate.temperatureLimitCelsius}
          onChange={(temperatureLimitCelsius) => set({ temperatureLimitCelsius })}
          onValidity={validity("temperatureLimit")}
        />
      </div>
      <div className={classes.row}>
        <NativeSelect
          label="Fed by"
          value={feed.kind ?? ""}
          data={[
            { value: "", label: "the shop's mains" },
            ...feedKinds.map((one) => ({ value: one, label: feedKindLabels[one] })),
          ]}
          onChange={(event) => setFeed({ kind: (event.currentTarget.value || null) as FeedKind | null })}
        />
        <QuantityInput
          label="Feed voltage"
          unit="V"
          limits={[1, 500]}
          value={feed.volts}
          onChange={(volts) => setFeed({ volts })}
          onValidity={validity("feedVolts")}
        />
      </div>
      <div className={classes.plateRails}>
        {labelPlate.rails.map((rail, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a rail of the label has no identity but its line
          <div key={index} className={classes.plateRail}>
            <TextInput
              size="xs"
              aria-label={`Label rail ${index + 1}, name`}
              placeholder="name, if any"
              maxLength={40}
              value={rail.name ?? ""}
              onChange={(event) => setRail(index, { name: event.currentTarget.value || null })}
            />
            <QuantityInput
              label={`Label rail ${index + 1}, volts`}
              isLabelHidden
              size="xs"
              unit="V"
              placeholder="volts"
              limits={[-boardLimits.railVolts, boardLimits.railVolts]}
              value={rail.volts}
              onChange={(volts) => setRail(index, { volts })}
              onValidity={validity(`railVolts${index}`)}
            />
            <QuantityInput
              label={`Label rail ${index + 1}, amperes`}
              isLabelHidden
              size="xs"
              unit="A"
              placeholder="amperes"
              limits={[0.001, boardLimits.railAmps]}
              value={rail.amps}
              onChange={(amps) => setRail(index, { amps })}
              onValidity={validity(`railAmps${index}`)}
            />
            <Button
              size="xs"
              aria-label={`Take label rail ${index + 1} off`}
              onClick={() => set({ rails: labelPlate.rails.filter((_, one) => one !== index) })}
            >
              Off
            </Button>
          </div>
        ))}
        <div className={classes.offers}>
          <Button
            size="xs"
            onClick={() => set({ rails: [...labelPlate.rails, { name: null, volts: null, amps: null }] })}
          >
            Add a rail of the label
          </Button>
          {labelPlate.rails.length === 0 && profile.rails.length > 0 && (
            <Button size="xs" onClick={() => set({ rails: profile.rails.map((rail) => ({ ...rail })) })}>
              Usual for this kind: {profile.rails.map((rail) => rail.name).join(", ")}
            </Button>
          )}
        </div>
      </div>
      <QuantityInput
        label="All outputs together, at most"
        unit="W"
        limits={[0.1, 5000]}
        value={labelPlate.outputWatts ?? null}
        onChange={(outputWatts) => set({ outputWatts })}
        onValidity={validity("outputWatts")}
      />
      <div className={classes.plateRails}>
        {combined.map((one, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: lines of a label have no identity of their own
          <div key={index} className={classes.plateRail}>
            <TextInput
              size="xs"
              aria-label={`Counted together ${index + 1}, rails`}
              placeholder="3.3 V + 5 V"
              maxLength={80}
              value={one.rails ?? ""}
              onChange={(event) => setCombined(index, { rails: event.currentTarget.value || null })}
            />
            <QuantityInput
              label={`Counted together ${index + 1}, watts`}
              isLabelHidden
              size="xs"
              unit="W"
              placeholder="watts"
              limits={[0.1, 5000]}
              value={one.watts}
              onChange={(watts) => setCombined(index, { watts })}
              onValidity={validity(`combined${index}`)}
            />
            <Button
              size="xs"
              aria-label={`Take counted together ${index + 1} off`}
              onClick={() => set({ combined: combined.filter((_, at) => at !== index) })}
            >
              Off
            </Button>
          </div>
        ))}
        <Button size="xs" onClick={() => set({ combined: [...combined, { rails: null, watts: null }] })}>
          Some outputs together, at most
        </Button>
      </div>
      <div className={classes.plug}>
        <PlugDrawing polarity={labelPlate.plugPolarity} />
        <SegmentedControl
          aria-label="Plug polarity"
          data={[
            { value: "", label: "no plug, unknown" },
            ...plugPolarities.map((one) => ({ value: one, label: plugLabels[one] })),
          ]}
          value={labelPlate.plugPolarity ?? ""}
          onChange={(value) => set({ plugPolarity: (value || null) as PlugPolarity | null })}
        />
        <TextInput
          aria-label="Plug, note"
          placeholder="plug: size, pins"
          maxLength={80}
          value={labelPlate.plugNote ?? ""}
          onChange={(event) => set({ plugNote: event.currentTarget.value || null })}
        />
      </div>
      <NativeSelect
        label="Topology"
        value={details.topology ?? ""}
        data={[
          { value: "", label: `unknown; usual for this kind: ${topologyLabels[profile.topologies[0] ?? "flyback"]}` },
          ...topologies.map((one) => ({
            value: one,
            label: `${topologyLabels[one]}${profile.topologies.includes(one) ? " (usual for this kind)" : ""}`,
          })),
        ]}
        onChange={(event) =>
          onChange({ ...details, topology: (event.currentTarget.value || null) as IntakeDetails["topology"] })
        }
      />
    </Part>
  );
});
