import { sampleNet, samplePart, samplePosition, sampleReading } from "./sampleJob";

/** The sample board and a reading on it as they travel: without what the server gives them. */
const { id: _net, ...net } = sampleNet();
const { id: _position, ...position } = samplePosition("C1");
const {
  id: _part,
  positionId: _place,
  origin: _origin,
  fittedAt: _fitted,
  removedAt: _removed,
  ...part
} = samplePart("C1");
const { sequence: _sequence, receivedAt: _received, clockAheadSeconds: _ahead, ...reading } = sampleReading("C1");

export const netValues = net;
export const positionValues = { ...position, netId: null as string | null };
export const partValues = part;
export const readingValues = {
  ...reading,
  uncertainty: null,
  rig: { ...reading.rig, areLeadsZeroed: true, measuredAt: null },
  rawText: "40m",
  instrument: null,
  supersedesId: null as string | null,
  personId: null,
  clockId: null,
};

/** One row that a board edit adds. */
export const boardInsert = (table: string, id: string, values: object) => ({
  table,
  operation: "insert",
  id,
  version: null,
  values,
});
