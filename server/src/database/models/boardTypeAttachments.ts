import type { AttachmentKind } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface BoardTypeAttachmentRow {
  id: string;
  version: number;
  boardTypeId: string;
  kind: AttachmentKind;
  name: string;
  mediaType: string;
  sha256: string;
  isRemoved: boolean;
  addedAt: Date;
}

export const boardTypeAttachments = (sequelize: Sequelize) =>
  defineTable<BoardTypeAttachmentRow>(sequelize, "board_type_attachments", {
    id: column.key,
    version: column.whole,
    boardTypeId: column.id,
    kind: column.text,
    name: column.text,
    mediaType: column.text,
    sha256: column.text,
    isRemoved: column.flag,
    addedAt: column.moment,
  });
