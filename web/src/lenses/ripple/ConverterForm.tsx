import { NativeSelect } from "@mantine/core";
import type { Net } from "@pale-cap/contract";
import {
  type ConverterDescription,
  hasPulses,
  type OutputConverter,
  outputConverters,
  sectionFacts,
  unknownConverter,
} from "@pale-cap/core";
import { converterLabels, dutyLabels } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { netUpdate } from "../../job/netUpdate";
import { useBoardEdit } from "../../job/useBoardEdit";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./ripple.module.css";

/** What is known of the converter behind a rail; what is left empty is assumed, and its effect shown as a band. */
export function ConverterForm({ net, converter }: { readonly net: Net; readonly converter: ConverterDescription }) {
  const [edit, { problem }] = useBoardEdit();
  const change = (more: Partial<ConverterDescription>) =>
    void edit((latest) =>
      netUpdate(latest, net.id, (stored) => ({ converter: { ...(stored.converter ?? converter), ...more } })),
    );
  const { detail } = useJob();
  const { kind } = converter;
  const duty = dutyLabels[kind];
  const feeds = detail.nets.filter((one) => one.id !== net.id && !sectionFacts[one.section].isMainsSide);
  const isFed = kind === "buck" || kind === "boost" || kind === "linear";
  const isSwitching = kind !== "linear";
  return (
    <Part title="The converter" aside={<span className={text.softLine}>empty is assumed</span>}>
      <ProblemNote problem={problem} />
      <div className={classes.form}>
        <NativeSelect
          label="Kind"
          value={converter.kind}
          data={outputConverters.map((kind) => ({ value: kind, label: converterLabels[kind] }))}
          onChange={(event) => {
            const kind = event.currentTarget.value as OutputConverter;
            const { switchingHertz, fedFromNetId, isSensed } = converter;
            change({ ...unknownConverter(kind), switchingHertz, fedFromNetId, isSensed });
          }}
        />
        <NativeSelect
          label="Regulation"
          value={converter.isSensed == null ? "" : String(converter.isSensed)}
          data={[
            { value: "", label: "not said" },
            { value: "true", label: "this output is sensed" },
            { value: "false", label: "follows another output" },
          ]}
          onChange={(event) =>
            change({ isSensed: event.currentTarget.value === "" ? null : event.currentTarget.value === "true" })
          }
        />
        {isFed && (
          <NativeSelect
            label="Fed from"
            value={converter.fedFromNetId ?? ""}
            data={[{ value: "", label: "not said" }, ...feeds.map((one) => ({ value: one.id, label: one.name }))]}
            onChange={(event) => change({ fedFromNetId: event.currentTarget.value || null })}
          />
        )}
        {isSwitching && (
          <QuantityInput
            label="Switching frequency"
            unit="Hz"
            defaultPrefix="k"
            limits={[100, 10e6]}
            value={converter.switchingHertz}
            onCommit={(switchingHertz) => change({ switchingHertz })}
          />
        )}
        {duty !== null && (
          <QuantityInput
            label={duty}
            unit="%"
            limits={[0.001, 0.999]}
            value={converter.dutyRatio}
            onCommit={(dutyRatio) => change({ dutyRatio })}
          />
        )}
        {duty !== null && kind !== "flyback_discontinuous" && kind !== "flyback_quasi_resonant" && (
          <QuantityInput
            label="Swing over mean"
            unit="%"
            limits={[0, 2]}
            value={converter.rippleRatio}
            onCommit={(rippleRatio) => change({ rippleRatio })}
          />
        )}
        {isSwitching && (
          <QuantityInput
            label="Capacitance on the load"
            unit="F"
            defaultPrefix="u"
            limits={[1e-12, 1]}
            value={converter.loadFarads}
            onCommit={(loadFarads) => change({ loadFarads })}
          />
        )}
        {hasPulses(kind) && (
          <QuantityInput
            label="Edges"
            unit="s"
            defaultPrefix="n"
            limits={[0, 1e-3]}
            value={converter.riseSeconds}
            onCommit={(riseSeconds) => change({ riseSeconds })}
          />
        )}
        {duty !== null && !hasPulses(kind) && (
          <QuantityInput
            label="Output choke"
            unit="H"
            defaultPrefix="u"
            limits={[1e-9, 1]}
            value={converter.inductanceHenrys}
            onCommit={(inductanceHenrys) => change({ inductanceHenrys })}
          />
        )}
        {(kind === "boost" || (duty !== null && !hasPulses(kind))) && (
          <QuantityInput
            label="Volts at its input"
            unit="V"
            limits={[0.1, 1000]}
            value={converter.inputVolts}
            onCommit={(inputVolts) => change({ inputVolts })}
          />
        )}
      </div>
    </Part>
  );
}
