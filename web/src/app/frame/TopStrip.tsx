import { ActionIcon, Menu, useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import { deviceName } from "@pale-cap/wording";
import { IconMenu2, IconMoon, IconSun, IconX } from "@tabler/icons-react";
import { NavLink, useNavigate } from "react-router";
import { useJobQuery } from "../../job/jobApi";
import { useBenchQuery } from "../../job/jobListApi";
import { usePeopleQuery } from "../../job/peopleApi";
import { HandsPanel } from "../../job/practice/HandsPanel";
import { jobClosed, personChosen } from "../../job/workplaceSlice";
import { OutboxNotice } from "../../outbox/OutboxNotice";
import { useAppDispatch, useAppSelector } from "../store/hooks";
import { ChargeWatch } from "./ChargeWatch";
import { CommandBox } from "./CommandBox";
import { DemoMark } from "./DemoMark";
import classes from "./frame.module.css";
import { ServerNote } from "./ServerNote";

/** Mark, open jobs, command box, charge watch, person: the same on every screen. */
export function TopStrip({ jobId }: { readonly jobId?: string }) {
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
        {jobId && <ChargeWatch />}
        <PlacesMenu />
        <PersonMenu />
        <SchemeSwitch />
      </div>
      <div className={classes.notices} data-page={jobId === undefined || undefined}>
        <OutboxNotice />
        <ServerNote />
      </div>
    </header>
  );
}

/** On a practice job: nobody's unit, and simulated values. */
function PracticeMark({ jobId }: { readonly jobId: string }) {
  const { data } = useJobQuery(jobId);
  return data?.job.realm === "practice" ? <span className={classes.demo}>Practice</span> : null;
}

function BrandMark() {
  return (
    <svg viewBox="0 0 26 26" width="26" height="26" aria-hidden="true">
      <circle cx="13" cy="13" r="11" fill="var(--sleeve)" stroke="var(--can-edge)" strokeWidth="1.7" />
      <path d="M18 3.2a11 11 0 0 1 0 19.6z" fill="var(--stripe)" />
    </svg>
  );
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

function PersonMenu() {
  const { data: people = [] } = usePeopleQuery();
  const personId = useAppSelector((state) => state.workplace.personId);
  const dispatch = useAppDispatch();
  const person = people.find((one) => one.id === personId);
  if (people.length === 0) return null;
  return (
    <Menu position="bottom-end" transitionProps={{ duration: 60 }}>
      <Menu.Target>
        <button type="button" className={classes.stripButton} aria-label="Who is at this bench">
          {person?.name ?? "who?"}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {people.map((one) => (
          <Menu.Item key={one.id} onClick={() => dispatch(personChosen(one.id))}>
            {one.name}
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
