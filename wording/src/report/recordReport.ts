import {
  houseRules as allRules,
  type HouseRuleKey,
  lateFactCount,
  type ReportBlock,
  type ReportDocument,
} from "@pale-cap/contract";
import { lastActOf, symptomLabels } from "@pale-cap/core";
import { listWords } from "../boardWords";
import { cautions } from "../cautions";
import { chargeWords } from "../chargeWords";
import { deviceName } from "../deviceName";
import { notRepairedTag, outcomeLabels } from "../handOverWords";
import { openPointWords } from "../lensWords";
import { evidence, findings, otherParts } from "./recordFindings";
import { momentOfAcceptance, photoBlocks, quoteBlocks } from "./recordPapers";
import { proofBlocks } from "./recordProof";
import { choices, partsFitted, work } from "./recordWork";
import { heading, list, paragraph, section, table } from "./reportDocument";
import { jobNumberText, type ReportModel, shopDay, shopMoment } from "./reportModel";

/** Everything that was read, decided and done, and what all of it stands on: for whoever has to answer for it. */
export function recordReport(model: ReportModel): ReportDocument {
  const { detail, houseRules, outcome } = model;
  const { job } = detail;
  return {
    audience: "record",
    title: `Repair report ${jobNumberText(job.number)}`,
    device: [
      deviceName(job),
      job.deviceSerial ? `serial ${job.deviceSerial}` : "",
      job.deviceAgeYears === null ? "" : `${job.deviceAgeYears} years old`,
    ]
      .filter(Boolean)
      .join(", "),
    dates: [
      ["Taken in", shopDay(model, job.createdAt)],
      ["Handed over", job.handedOverAt ? shopDay(model, job.handedOverAt) : "not yet"],
      ["Leaves", job.handedOverAt ? outcomeLabels[outcome] : "not closed"],
      ["Warranty until", job.warrantyUntil ? shopDay(model, job.warrantyUntil) : "none so far"],
    ],
    notices: notices(model),
    blocks: [
      ...complaint(model),
      ...section("Verdict", [job.verdictSummary ? paragraph(job.verdictSummary) : null]),
      ...model.rounds.flatMap((round) => findings(round, model)),
      ...otherParts(model),
      ...evidence(model),
      ...choices(model),
      ...partsFitted(model),
      ...work(model),
      ...proofBlocks(model),
      ...quoteBlocks(model),
      ...openPointBlocks(model),
      ...rigAndInstruments(model),
      ...photoBlocks(model),
      ...versions(model),
      heading("Cautions"),
      paragraph(charge(model)),
      paragraph(cautions.storedCharge, "warning"),
      paragraph(cautions.standing),
    ],
    foot: [houseRules["shop.name"], houseRules["shop.contact"]].filter((one) => one !== "").join(" · "),
  };
}

function notices(model: ReportModel): readonly string[] {
  const { detail, outcome, reopenings } = model;
  const { job } = detail;
  const simulated = [...detail.readings, ...detail.chargeEvents, ...detail.captures].filter((one) => one.isSimulated);
  const late = lateFactCount(detail);
  return [
    ...(job.handedOverAt ? [] : ["The job is not closed: this is how it stands."]),
    ...(job.realm === "practice" ? ["A practice job: nobody's unit."] : []),
    ...(simulated.length > 0
      ? [`${simulated.length} of its values ${simulated.length === 1 ? "is" : "are"} simulated.`]
      : []),
    ...(outcome === "not_repaired" ? [notRepairedTag] : []),
    ...reopenings.map(
      ({ at, note }) => `Opened again ${shopMoment(model, at)}${note === null || note === "" ? "" : `: ${note}`}.`,
    ),
    ...(late > 0
      ? [
          `${late} ${late === 1 ? "entry" : "entries"} came after it was closed and ${late === 1 ? "is" : "are"} not in this report.`,
        ]
      : []),
  ];
}

function complaint({ detail }: ReportModel): readonly ReportBlock[] {
  const { job } = detail;
  const { inputWatts, outputVolts, lights, sound } = job.intakeDetails.asReceived ?? {};
  const received = [
    inputWatts == null ? null : `${inputWatts} W drawn`,
    outputVolts == null ? null : `${outputVolts} V at its output`,
    lights && `lights: ${lights}`,
    sound && `sound: ${sound}`,
  ].filter(Boolean);
  return section("Complaint", [
    paragraph(job.complaint ?? "None noted."),
    job.ownersWords ? paragraph(`In the owner's words: ${job.ownersWords}`) : null,
    job.symptoms.length > 0
      ? paragraph(`${job.symptoms.map((code) => symptomLabels[code] ?? code).join("; ")}.`, "dim")
      : null,
    job.symptomNote ? paragraph(job.symptomNote, "dim") : null,
    received.length > 0 ? paragraph(`As received: ${received.join(", ")}.`) : null,
    job.customerName ? paragraph(`For ${job.customerName}.`, "dim") : null,
  ]);
}

function openPointBlocks(model: ReportModel): readonly ReportBlock[] {
  const items = model.points.map((point) => {
    const reason = model.accepted.get(point.key);
    if (reason === undefined) return openPointWords(point);
    return `${openPointWords(point)} Accepted${momentOfAcceptance(model, point.key)}: ${reason}`;
  });
  return section("Open points", [list(items) ?? paragraph("None.")]);
}

/** What it was read with, and when that was held against something known. */
function rigAndInstruments(model: ReportModel): readonly ReportBlock[] {
  const { detail, instruments, facts } = model;
  const counts = new Map<string, number>();
  for (const { instrument } of detail.readings) {
    const name = instrument ?? "typed by hand, instrument not named";
    counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  const checked = (name: string) => instruments.find((one) => one.name === name)?.checkedOn ?? null;
  const rows = [...counts].map(([name, count]) => {
    const day = checked(name);
    return [name, String(count), day === null ? "not noted" : shopDay(model, day)];
  });
  const rigs = [
    ["isolation transformer", detail.readings.filter((one) => one.rig.isIsolationTransformer).length],
    ["series lamp", detail.readings.filter((one) => one.rig.isSeriesLamp).length],
    ["electronic limiter", detail.readings.filter((one) => one.rig.isElectronicLimiter).length],
  ].filter(([, count]) => count !== 0);
  const board = lastActOf(facts.acts, "board_insulated", null);
  return section("Rig and instruments", [
    table("Instruments", ["Read with", "Readings", "Last check"], rows, [1]),
    rigs.length > 0
      ? paragraph(`Of the readings, ${listWords(rigs.map(([name, count]) => `${count} through a ${name}`))}.`)
      : null,
    board ? paragraph(`The board lay insulated from ${shopMoment(model, board.at)} on.`, "dim") : null,
  ]);
}

/** By what it was judged, so that it can be made anew: the program's arithmetic, and every rule that is the house's own. */
function versions({ houseRules, coreVersion }: ReportModel): readonly ReportBlock[] {
  const own = (Object.keys(allRules) as HouseRuleKey[]).filter(
    (key) => !key.startsWith("shop.") && JSON.stringify(houseRules[key]) !== JSON.stringify(allRules[key].value),
  );
  return section("Judged by", [
    paragraph(
      `Pale Cap, core ${coreVersion}. ${own.length === 0 ? "House rules: all as they come." : "House rules of its own:"}`,
    ),
    list(own.map((key) => `${allRules[key].title}: ${ruleText(houseRules[key])} ${allRules[key].unit}`.trim())),
  ]);
}

const ruleText = (value: unknown): string => (typeof value === "object" ? JSON.stringify(value) : String(value));

function charge(model: ReportModel): string {
  const { facts, nowMilliseconds } = model;
  // Its time is told in the shop's own zone, beside it.
  const words = chargeWords({ ...model.charge, at: null }, facts.energyStores, nowMilliseconds);
  const at = model.charge.at === null ? "" : `, by ${shopMoment(model, model.charge.at)}`;
  return `State of stored charge, ${shopMoment(model, new Date(nowMilliseconds).toISOString())}: ${words}${at}.`;
}
