import { Button, TextInput } from "@mantine/core";
import type { JobDetail } from "@pale-cap/contract";
import { type AnsweredDemand, isBulk } from "@pale-cap/core";
import { cautions, powerGateWords, shutterWords } from "@pale-cap/wording";
import { ProblemNote } from "../../../ui/ProblemNote";
import text from "../../../ui/text.module.css";
import { useDraft } from "../../../ui/useDraft";
import { Allowed } from "../../Allowed";
import { useJob } from "../../JobContext";
import { useLogAct } from "../../useLogAct";
import { GateRow } from "./GateRow";
import classes from "./power.module.css";
import { useLogPower } from "./useLogPower";

/** What stands against the mains: tests after something blew or was worked on, and what the unit itself lacks. */
export function PowerGateCard() {
  const { detail, power, charge } = useJob();
  const { gate, shutters, demands, isShut } = power;
  const [log, { problem, isLoading }] = useLogPower();
  const [act, { problem: actProblem }] = useLogAct();
  const [reason, setReason, dropReason] = useDraft(`${detail.job.id} gate reason`, "");
  const tests = [...gate.demands, ...demands];
  const openTests = tests.filter((one) => one.state !== "passed");
  // An ohmmeter belongs on nothing that may be charged; a breathing space after a first low reading is enough for it.
  const isCharged = charge.name !== "verified" && charge.name !== "drained_once";
  const isRefused = ({ item }: AnsweredDemand) => isCharged && item !== "rail" && item !== "sink";

  async function overrule() {
    if (await log({ kind: "gate_overruled", note: reason.trim() })) dropReason(reason);
  }

  return (
    <section className={classes.gate} data-shut={isShut || undefined} aria-label="Way to mains">
      {gate.cause === null && !isShut ? (
        <div className={text.softLine}>
          Did a fuse blow or something trip? Log it: the tests for shorts then come first.
        </div>
      ) : (
        <div role="status">
          <strong>{gate.cause === null ? "First power is not offered yet." : powerGateWords(gate)}</strong>
        </div>
      )}
      {gate.isShut && <div className={text.softLine}>{cautions.blownFuse}</div>}
      {shutters.map((shutter) => (
        <div key={shutter.code} className={classes.shutter}>
          <span>{shutterWords(shutter)}</span>
          {shutter.code === "sheet_or_earth_out" && (
            <Button size="xs" onClick={() => void act({ kind: "board_insulated" })}>
              On the bench: board insulated, earth clipped on
            </Button>
          )}
          {shutter.code === "part_out" &&
            shutter.positionIds.map(
              (id, n) =>
                !isBulkPlace(detail, id) && (
                  <Button key={id} size="xs" onClick={() => void act({ kind: "out_for_test", subjectId: id })}>
                    {shutter.subjects[n]} out on purpose, for a test
                  </Button>
                ),
            )}
        </div>
      ))}
      <ProblemNote problem={problem ?? actProblem} />
      {tests.length > 0 && (isShut || openTests.length > 0) && (
        <>
          {tests.some(isRefused) && (
            <p className={classes.refusal}>No ohms yet: the charge watch does not read low. {cautions.ohmsOnCharge}</p>
          )}
          <ul className={classes.tests} aria-label="Tests before power">
            {tests.map((demand) => (
              <GateRow key={`${demand.item}:${demand.subjectId}`} demand={demand} isRefused={isRefused(demand)} />
            ))}
          </ul>
        </>
      )}
      {(gate.isShut || shutters.some((one) => one.code !== "sheet_or_earth_out")) && (
        <Allowed right="overrule">
          <form
            className={classes.row}
            onSubmit={(event) => {
              event.preventDefault();
              void overrule();
            }}
          >
            <TextInput
              className={classes.grow}
              label="Or go on without it, because"
              value={reason}
              maxLength={300}
              onChange={(event) => setReason(event.currentTarget.value)}
            />
            <Button type="submit" loading={isLoading} disabled={reason.trim().length < 3}>
              Overrule
            </Button>
          </form>
        </Allowed>
      )}
      <div className={classes.row}>
        <Button size="xs" loading={isLoading} onClick={() => void log({ kind: "fuse_blown" })}>
          Fuse blew
        </Button>
        <Button size="xs" loading={isLoading} onClick={() => void log({ kind: "breaker_tripped" })}>
          Breaker tripped
        </Button>
        <Button size="xs" loading={isLoading} onClick={() => void log({ kind: "residual_current_tripped" })}>
          Residual-current device tripped
        </Button>
      </div>
    </section>
  );
}

/** A unit never runs without its bulk: that place is never left out on purpose. */
function isBulkPlace(detail: JobDetail, positionId: string): boolean {
  const position = detail.positions.find((one) => one.id === positionId);
  return position !== undefined && isBulk(detail, position);
}
