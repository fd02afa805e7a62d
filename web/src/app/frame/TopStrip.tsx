import { ActionIcon, Menu, useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import type { Presence } from "@pale-cap/contract";
import { deviceName } from "@pale-cap/wording";
import { IconMenu2, IconMoon, IconSun, IconX } from "@tabler/icons-react";
import { NavLink, useNavigate } from "react-router";
import { useJobQuery } from "../../job/jobApi";
import { useBenchQuery } from "../../job/jobListApi";
import { HandsPanel } from "../../job/practice/HandsPanel";
import { jobClosed } from "../../job/workplaceSlice";
import { OutboxNotice } from "../../outbox/OutboxNotice";
import { useAppDispatch, useAppSelector } from "../store/hooks";
import { BrandMark } from "./BrandMark";
import { ChargeWatch } from "./ChargeWatch";
import { CommandBox } from "./CommandBox";
import { DemoMark } from "./DemoMark";
import classes from "./frame.module.css";
import { OthersHere } from "./OthersHere";
import { PersonMenu } from "./PersonMenu";
import { ServerNote } from "./ServerNote";
import { UpdateNote } from "./UpdateNote";

/** Mark, open jobs, command box, charge watch, person: the same on every screen. */
export function TopStrip({ jobId, people = [] }: { readonly jobId?: string; readonly people?: readonly Presence[] }) {
  return (
    <header className={classes.top}>
      <div className={classes.strip}>
        <NavLink to="/" className={classes.brand} aria-label="Pale Cap, to the bench">
          <BrandMark />
          <span>Pale Cap</span>
        </NavLink>
        <DemoMark />
        {jobId && <PracticeMark jobId={jobId} />}
        <JobChips currentId={jobId} />
        <CommandBox jobId={jobId} />
        {jobId && <HandsPanel />}
        {people.length > 0 && <OthersHere people={people} />}
        {jobId && <ChargeWatch />}
        <PlacesMenu />
        <PersonMenu />
        <SchemeSwitch />
      </div>
      <div className={classes.notices} data-page={jobId === undefined || undefined}>
        <OutboxNotice />
        <ServerNote />
        <UpdateNote />
      </div>
    </header>
  );
}

/** On a practice job: nobody's unit, and simulated values. */
function PracticeMark({ jobId }: { readonly jobId: string }) {
  const { data } = useJobQuery(jobId);
  return data?.job.realm === "practice" ? <span className={classes.demo}>Practice</span> : null;
}

function JobChips({ currentId }: { readonly currentId: string | undefined }) {
  const openIds = useAppSelector((state) => state.workplace.openJobIds);
  // Three chips fit beside the command box at 1280; the job on screen is always one of them.
  const latest = openIds.slice(-3);
  const isOlder = currentId !== undefined && openIds.includes(currentId) && !latest.includes(currentId);
  const shown = isOlder ? [currentId, ...latest.slice(1)] : latest;
  return (
    <nav className={classes.chips} aria-label="Open jobs">
      {shown.map((id) => (
        <JobChip key={id} id={id} isCurrent={id === currentId} />
      ))}
    </nav>
  );
}

function JobChip({ id, isCurrent }: { readonly id: string; readonly isCurrent: boolean }) {
  const { data: bench } = useBenchQuery(undefined);
  const line = bench?.lines.find((one) => one.id === id);
  // One that is closed, or far down the bench, is told by its job.
  const { data: detail } = useJobQuery(id, { skip: !bench || line !== undefined });
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const job = line ?? detail?.job;
  if (!job) return null;
  return (
    <span className={classes.chip} data-current={isCurrent || undefined}>
      <NavLink to={`/jobs/${id}`} title={deviceName(job)}>
        <b>{String(job.number).padStart(4, "0")}</b>{" "}
        <span className={classes.chipName}>{job.deviceModel ?? deviceName(job)}</span>
      </NavLink>
      <ActionIcon
        variant="transparent"
        size={18}
        color="gray"
        aria-label={`Take job ${job.number} off the strip`}
        onClick={() => {
          dispatch(jobClosed(id));
          if (isCurrent) navigate("/");
        }}
      >
        <IconX size={13} />
      </ActionIcon>
    </span>
  );
}

const places = [
  ["/", "Bench"],
  ["/parts", "Parts"],
  ["/casebook", "Casebook"],
  ["/practice", "Practice"],
  ["/instruments", "Instruments"],
  ["/people", "People"],
  ["/house-rules", "House rules"],
  ["/working-safely", "Working safely"],
] as const;

/** The places outside a job. */
function PlacesMenu() {
  return (
    <Menu position="bottom-end" transitionProps={{ duration: 60 }}>
      <Menu.Target>
        <button type="button" className={classes.stripButton} aria-label="Places outside a job">
          <IconMenu2 size={17} />
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {places.map(([path, name]) => (
          <Menu.Item key={path} component={NavLink} to={path} end>
            {name}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}

function SchemeSwitch() {
  const { setColorScheme } = useMantineColorScheme();
  const isDark = useComputedColorScheme("light") === "dark";
  return (
    <button
      type="button"
      className={classes.stripButton}
      aria-label={isDark ? "Light scheme" : "Dark scheme"}
      onClick={() => setColorScheme(isDark ? "light" : "dark")}
    >
      {isDark ? <IconSun size={17} /> : <IconMoon size={17} />}
    </button>
  );
}
