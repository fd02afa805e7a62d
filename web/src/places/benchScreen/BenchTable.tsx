import type { BenchLine } from "@pale-cap/contract";
import { formatQuantity, lenses } from "@pale-cap/core";
import { ageText, dayText, deviceName, lensLabels, logTime } from "@pale-cap/wording";
import dayjs from "dayjs";
import type { RefObject } from "react";
import { Link } from "react-router";
import { TakeBackButton } from "../../job/TakeBackButton";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./bench.module.css";

/** The jobs, newest first: device, fault, lens reached, charge state, age. */
export function BenchTable(props: {
  readonly lines: readonly BenchLine[];
  readonly tableRef?: RefObject<HTMLTableElement | null>;
}) {
  const now = Date.now();
  return (
    <table className={`${text.table} ${classes.table}`} ref={props.tableRef}>
      <TableHead names={["Job", "Device", "Fault", "Lens", "Charge", "Open", "Due", "Age"]} />
      <tbody>
        {props.lines.map((line) => (
          <tr
            key={line.id}
            data-done={line.handedOverAt ? true : undefined}
            onClick={(event) => event.currentTarget.querySelector("a")?.click()}
          >
            <td className={classes.number}>
              <Link
                data-job
                onClick={(event) => event.stopPropagation()}
                to={`/jobs/${line.id}/${line.handedOverAt ? "hand-over" : line.lens}`}
              >
                {String(line.number).padStart(4, "0")}
              </Link>
            </td>
            <td>
              <div className={classes.device}>{deviceName(line)}</div>
              <div className={text.soft}>{line.deviceKind.replace("-", " ")}</div>
            </td>
            <td className={classes.fault}>{line.complaint ?? <span className={text.soft}>not noted</span>}</td>
            <td>
              <LensStep line={line} />
            </td>
            <td>{line.handedOverAt ? <span className={text.soft}>–</span> : <Charge line={line} />}</td>
            <td className={classes.figure}>
              {line.handedOverAt ? line.lateFactCount > 0 && `${line.lateFactCount} late` : line.openPointCount || ""}
            </td>
            <td className={classes.nowrap}>
              {line.handedOverAt ? <TakeBackButton job={line} /> : <Due line={line} />}
            </td>
            <td className={classes.nowrap}>{ageText(line.createdAt, now)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The lens reached, with nine small rungs. */
function LensStep({ line }: { readonly line: BenchLine }) {
  const reached = line.handedOverAt ? lenses.length : lenses.indexOf(line.lens) + 1;
  return (
    <div>
      <div className={classes.nowrap}>{line.handedOverAt ? "handed over" : lensLabels[line.lens]}</div>
      <div className={classes.rungs} aria-hidden="true">
        {lenses.map((lens, index) => (
          <span key={lens} data-on={index < reached || undefined} />
        ))}
      </div>
    </div>
  );
}

function Charge({ line }: { readonly line: BenchLine }) {
  const volts = line.chargeVolts === null ? "" : formatQuantity(line.chargeVolts, "V").text;
  const at = line.chargeAt ? logTime(line.chargeAt) : "";
  const words = {
    unknown: "unknown",
    charged: `charged ${volts}`,
    draining: `draining ${volts}`,
    drained_once: `${volts}, not verified`,
    verified: `measured ${volts}`,
  }[line.chargeName];
  return (
    <div className={classes.charge} data-state={line.chargeName}>
      <div className={classes.nowrap}>{words}</div>
      {line.chargeName !== "unknown" && <div className={text.soft}>{at}</div>}
    </div>
  );
}

function Due({ line }: { readonly line: BenchLine }) {
  if (!line.dueOn) return null;
  const days = dayjs(line.dueOn).startOf("day").diff(dayjs().startOf("day"), "day");
  if (days < 0) return <strong className={classes.late}>{-days} d late</strong>;
  if (days === 0) return <strong>today</strong>;
  return days < 14 ? `in ${days} d` : dayText(line.dueOn);
}
