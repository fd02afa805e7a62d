import { ActionIcon, Button, FileInput, NativeSelect, TextInput } from "@mantine/core";
import { notifications } from "@mantine/notifications";
import {
  type AttachmentKind,
  attachmentKinds,
  attachmentLimits,
  type BenchNotes,
  type BoardTypePapers,
  type PinRole,
  pinRoles,
} from "@pale-cap/contract";
import { IconTrash } from "@tabler/icons-react";
import { useState } from "react";
import { newId } from "../../api/newId";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import { TypedOverNote } from "../../ui/TypedOverNote";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import { useOnLeave } from "../../ui/useOnLeave";
import { useTypedOver } from "../../ui/useTypedOver";
import {
  attachmentAddress,
  useAddAttachmentMutation,
  useBoardTypePapersQuery,
  useKeepBenchNotesMutation,
  useRemoveAttachmentMutation,
} from "./boardTypeApi";
import classes from "./inspect.module.css";

const kindLabels: Readonly<Record<AttachmentKind, string>> = {
  service_manual: "service manual",
  ic_sheet: "IC sheet",
  schematic: "schematic",
  other: "other paper",
};
const roleLabels: Readonly<Record<PinRole, string>> = {
  output: "output",
  ground: "ground",
  enable: "enable",
  sense: "sense",
  other: "other",
};

/** What is kept with a kind of board: how it runs out of its set, and its papers. */
export function PapersCard({ boardTypeId }: { readonly boardTypeId: string }) {
  const { data: papers } = useBoardTypePapersQuery(boardTypeId);
  if (!papers) return null;
  return (
    <>
      <Part title="Out of its set">
        <Pins key={papers.version} papers={papers} />
      </Part>
      <Part title="Papers of this board type">
        <Papers papers={papers} />
      </Part>
    </>
  );
}

/** The connector pin by pin: what tells the board to run, what must be loaded, what comes out. */
function Pins({ papers }: { readonly papers: BoardTypePapers }) {
  const [keep, { error, isLoading }] = useKeepBenchNotesMutation();
  const [notes, setNotes, dropNotes] = useDraft<BenchNotes>(`bench notes ${papers.boardTypeId}`, papers.benchNotes);
  const over = useTypedOver(
    `bench notes ${papers.boardTypeId}`,
    JSON.stringify(papers.benchNotes),
    JSON.stringify(notes),
  );
  const isChanged = JSON.stringify(notes) !== JSON.stringify(papers.benchNotes);
  const setPin = (index: number, change: Partial<BenchNotes["pins"][number]>) =>
    setNotes((now) => ({ ...now, pins: now.pins.map((one, n) => (n === index ? { ...one, ...change } : one)) }));
  const add = () =>
    setNotes((now) => ({
      ...now,
      pins: [...now.pins, { pin: String(now.pins.length + 1), name: "", role: "output", volts: null, leastAmps: null }],
    }));
  const isWhole = notes.pins.every((one) => one.pin.trim() !== "" && one.name.trim() !== "");
  const store = async () => {
    over.sent(JSON.stringify(notes));
    const answer = await keep({ boardTypeId: papers.boardTypeId, version: papers.version, benchNotes: notes });
    if (!answer.error) dropNotes(notes);
    return asProblem(answer.error);
  };
  useOnLeave(() => {
    if (!isChanged || over.isConflict) return;
    const tell = (message: string) => notifications.show({ message });
    if (!isWhole) tell("The pins were not stored: each needs its number and its name. They stand in Inspect as typed.");
    else {
      void store().then((refusal) =>
        tell(refusal ? `The pins were not stored: ${refusal.detail}` : "The pins were stored with the board type."),
      );
    }
  });
  return (
    <>
      {over.isConflict && (
        <TypedOverNote
          stored={papers.benchNotes.pins.map((one) => `${one.pin} ${one.name}`).join(", ")}
          onMine={over.seen}
          onTheirs={() => dropNotes()}
        />
      )}
      {notes.pins.length === 0 && (
        <p className={text.soft}>
          Enable pins, least load and the connector's pinout, kept for every unit of the kind.
        </p>
      )}
      {notes.pins.map((one, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a pin is its place in the connector
        <div key={index} className={classes.pin}>
          <TextInput
            size="xs"
            aria-label={`Pin ${index + 1}, number`}
            maxLength={12}
            value={one.pin}
            onChange={(event) => setPin(index, { pin: event.currentTarget.value })}
          />
          <TextInput
            size="xs"
            aria-label={`Pin ${index + 1}, name`}
            placeholder="PS_ON, 12 V"
            maxLength={40}
            value={one.name}
            onChange={(event) => setPin(index, { name: event.currentTarget.value })}
          />
          <NativeSelect
            size="xs"
            aria-label={`Pin ${index + 1}, role`}
            data={pinRoles.map((role) => ({ value: role, label: roleLabels[role] }))}
            value={one.role}
            onChange={(event) => setPin(index, { role: event.currentTarget.value as PinRole })}
          />
          <QuantityInput
            label={`Pin ${index + 1}, volts`}
            isLabelHidden
            isCompact
            size="xs"
            unit="V"
            placeholder="V"
            limits={[-1000, 1000]}
            value={one.volts}
            onChange={(volts) => setPin(index, { volts })}
          />
          <QuantityInput
            label={`Pin ${index + 1}, least load`}
            isLabelHidden
            isCompact
            size="xs"
            unit="A"
            placeholder="least A"
            limits={[0, 200]}
            value={one.leastAmps}
            onChange={(leastAmps) => setPin(index, { leastAmps })}
          />
          <ActionIcon
            variant="subtle"
            color="gray"
            aria-label={`Take pin ${one.pin} off`}
            onClick={() => setNotes((now) => ({ ...now, pins: now.pins.filter((_, n) => n !== index) }))}
          >
            <IconTrash size={15} />
          </ActionIcon>
        </div>
      ))}
      <TextInput
        size="xs"
        aria-label="Note on running it out of its set"
        placeholder="order of things: standby first, then PS_ON"
        maxLength={500}
        value={notes.note ?? ""}
        onChange={(event) => setNotes({ ...notes, note: event.currentTarget.value || null })}
      />
      <div className={classes.types}>
        <Button size="xs" onClick={add}>
          Add a pin
        </Button>
        <Button size="xs" loading={isLoading} disabled={!isChanged || !isWhole} onClick={() => void store()}>
          Keep for the type
        </Button>
      </div>
      <ProblemNote problem={asProblem(error)} />
    </>
  );
}

function Papers({ papers }: { readonly papers: BoardTypePapers }) {
  const [add, adding] = useAddAttachmentMutation();
  const [remove] = useRemoveAttachmentMutation();
  const [kind, setKind] = useState<AttachmentKind>("service_manual");
  const { boardTypeId } = papers;
  const isTooLarge = (file: File) => file.size > attachmentLimits.uploadBytes;
  const [refused, setRefused] = useState<string>();
  return (
    <>
      <ul className={classes.differences}>
        {papers.attachments.map((one) => (
          <li key={one.id}>
            <a href={attachmentAddress(one.id)} download>
              {one.name}
            </a>{" "}
            <span className={text.soft}>
              {kindLabels[one.kind]}, {Math.max(1, Math.round(one.sizeBytes / 1024))} kB
            </span>{" "}
            <ActionIcon
              variant="subtle"
              color="gray"
              size="xs"
              aria-label={`Take ${one.name} away`}
              onClick={() => void remove({ attachmentId: one.id, version: one.version })}
            >
              <IconTrash size={14} />
            </ActionIcon>
          </li>
        ))}
      </ul>
      <div className={classes.types}>
        <NativeSelect
          size="xs"
          aria-label="Kind of paper"
          data={attachmentKinds.map((one) => ({ value: one, label: kindLabels[one] }))}
          value={kind}
          onChange={(event) => setKind(event.currentTarget.value as AttachmentKind)}
        />
        <FileInput
          size="xs"
          aria-label="Add a paper"
          placeholder="PDF, PNG or JPEG"
          accept="application/pdf,image/png,image/jpeg"
          value={null}
          disabled={adding.isLoading}
          error={refused}
          onChange={(file) => {
            if (!file) return;
            setRefused(isTooLarge(file) ? "Larger than 30 MB." : undefined);
            if (!isTooLarge(file))
              void add({ boardTypeId, about: { id: newId(), kind, name: file.name.slice(-120) }, file });
          }}
        />
      </div>
      <ProblemNote problem={asProblem(adding.error)} />
    </>
  );
}
