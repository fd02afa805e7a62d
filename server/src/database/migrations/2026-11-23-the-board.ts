import type { QueryInterface } from "sequelize";

/**
 * A board as it is shaped and lies in its case, what stands in the way, readings that belong to pins, and what a kind of
 * board needs to run outside its set, with its papers.
 */
export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.query(
    `ALTER TABLE boards ADD COLUMN outline jsonb, ADD COLUMN lid_zones jsonb NOT NULL DEFAULT '[]', ADD COLUMN underlay jsonb;
     ALTER TABLE positions ADD COLUMN outline_height_metres double precision;
     ALTER TABLE readings ADD COLUMN terminals text;
     UPDATE board_type_revisions SET content = jsonb_set(content, '{board}', '{"outline": null, "lidZones": []}' || (content->'board'));
     ALTER TABLE board_types ADD COLUMN version integer NOT NULL DEFAULT 1, ADD COLUMN bench_notes jsonb;
     CREATE TABLE board_type_attachments (
      id uuid PRIMARY KEY, board_type_id uuid NOT NULL REFERENCES board_types, kind text NOT NULL, name text NOT NULL,
      media_type text NOT NULL, sha256 text NOT NULL REFERENCES blobs, is_removed boolean NOT NULL DEFAULT false,
      added_at timestamptz NOT NULL);
     CREATE INDEX board_type_attachments_type ON board_type_attachments (board_type_id)`,
  );
}
