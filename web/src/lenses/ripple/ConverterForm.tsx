import { NativeSelect } from "@mantine/core";
import type { Net } from "@pale-cap/contract";
import { type ConverterDescription, type OutputConverter, outputConverters, unknownConverter } from "@pale-cap/core";
import { converterLabels, dutyLabels } from "@pale-cap/wording";
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
  const isFlyback = converter.kind.startsWith("flyback");
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
            change({ ...unknownConverter(kind), switchingHertz: converter.switchingHertz });
          }}
        />
        <QuantityInput
          label="Switching frequency"
          unit="Hz"
          defaultPrefix="k"
          limits={[100, 10e6]}
          value={converter.switchingHertz}
          onCommit={(switchingHertz) => change({ switchingHertz })}
        />
        <QuantityInput
          label={dutyLabels[converter.kind]}
          unit="%"
          limits={[0.001, 0.999]}
          value={converter.dutyRatio}
          onCommit={(dutyRatio) => change({ dutyRatio })}
        />
        {converter.kind !== "flyback_discontinuous" && (
          <QuantityInput
            label="Swing over mean"
            unit="%"
            limits={[0, 2]}
            value={converter.rippleRatio}
            onCommit={(rippleRatio) => change({ rippleRatio })}
          />
        )}
        <QuantityInput
          label="Capacitance on the load"
          unit="F"
          defaultPrefix="u"
          limits={[1e-12, 1]}
          value={converter.loadFarads}
          onCommit={(loadFarads) => change({ loadFarads })}
        />
        {isFlyback ? (
          <QuantityInput
            label="Edges"
            unit="s"
            defaultPrefix="n"
            limits={[0, 1e-3]}
            value={converter.riseSeconds}
            onCommit={(riseSeconds) => change({ riseSeconds })}
          />
        ) : (
          <>
            <QuantityInput
              label="Output choke"
              unit="H"
              defaultPrefix="u"
              limits={[1e-9, 1]}
              value={converter.inductanceHenrys}
              onCommit={(inductanceHenrys) => change({ inductanceHenrys })}
            />
            <QuantityInput
              label="Volts at its input"
              unit="V"
              limits={[0.1, 1000]}
              value={converter.inputVolts}
              onCommit={(inputVolts) => change({ inputVolts })}
            />
          </>
        )}
      </div>
    </Part>
  );
}
