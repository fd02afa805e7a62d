import { Button } from "@mantine/core";
import { formatQuantity } from "@pale-cap/core";
import { useCaptureWaveformMutation } from "../../probe/instruments/instrumentApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import classes from "./instruments.module.css";

const width = 300;
const height = 90;

/** One sweep of the scope, drawn as it came; nothing of it is kept. */
export function ScopeScreen({ instrumentId }: { readonly instrumentId: string }) {
  const [capture, { data, error, isLoading }] = useCaptureWaveformMutation();
  const volts = data?.volts ?? [];
  const [low, high] = [Math.min(...volts), Math.max(...volts)];
  const span = Math.max(high - low, 1e-9);
  const points = volts.map(
    (volt, n) =>
      `${((n / Math.max(volts.length - 1, 1)) * width).toFixed(1)},${(height - 4 - ((volt - low) / span) * (height - 8)).toFixed(1)}`,
  );
  return (
    <div className={classes.stack}>
      <div className={classes.row}>
        <Button size="xs" loading={isLoading} onClick={() => void capture(instrumentId)}>
          One sweep
        </Button>
        {data && (
          <span className={`${text.soft} ${classes.note}`}>
            {formatQuantity(data.intervalSeconds * volts.length, "s").text} across, {formatQuantity(span, "V").text}{" "}
            from least to most
          </span>
        )}
      </div>
      {data && (
        <svg viewBox={`0 0 ${width} ${height}`} className={classes.sweep} role="img" aria-label="The sweep">
          <polyline points={points.join(" ")} />
        </svg>
      )}
      <ProblemNote problem={asProblem(error)} />
    </div>
  );
}
