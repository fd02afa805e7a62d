import type { QueryInterface } from "sequelize";

/**
 * What the two lenses before any probe need: photos with marks, the log of taking apart and its way back, stores of every
 * kind with their bleeder, the named part of a drain, fuses and short tests, and what a repair took.
 */
const statements = [
  `CREATE TABLE photos (
    id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, version integer NOT NULL DEFAULT 1, kind text NOT NULL,
    caption text, marks jsonb NOT NULL DEFAULT '[]', is_removed boolean NOT NULL DEFAULT false,
    image_sha256 text NOT NULL REFERENCES blobs, thumbnail_sha256 text NOT NULL REFERENCES blobs,
    width_pixels integer NOT NULL, height_pixels integer NOT NULL, taken_at timestamptz NOT NULL,
    person_id uuid REFERENCES people)`,
  `CREATE INDEX photos_job ON photos (job_id)`,
  `CREATE TABLE teardown_steps (
    id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, version integer NOT NULL DEFAULT 1,
    number integer NOT NULL, kind text NOT NULL, count integer NOT NULL, size text, place text,
    photo_id uuid REFERENCES photos, is_removed boolean NOT NULL DEFAULT false, done_at timestamptz NOT NULL,
    person_id uuid REFERENCES people, UNIQUE (job_id, number))`,
  `CREATE TABLE teardown_returns (
    id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, step_id uuid NOT NULL REFERENCES teardown_steps,
    count_in integer NOT NULL, at timestamptz NOT NULL, person_id uuid REFERENCES people)`,
  `CREATE INDEX teardown_returns_job ON teardown_returns (job_id)`,
  `CREATE TABLE power_events (
    id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, kind text NOT NULL, resistance_ohms double precision,
    has_short boolean, note text, at timestamptz NOT NULL, person_id uuid REFERENCES people)`,
  `CREATE INDEX power_events_job ON power_events (job_id)`,
  `ALTER TABLE energy_stores ADD COLUMN kind text NOT NULL DEFAULT 'bulk', ADD COLUMN net_id uuid REFERENCES nets,
    ADD COLUMN bleeder_ohms double precision`,
  `ALTER TABLE charge_events ADD COLUMN drain_item jsonb`,
  `ALTER TABLE jobs ADD COLUMN spent_minutes double precision`,
  `CREATE INDEX jobs_family ON jobs (job_family_id)`,
  `UPDATE readings SET rig = rig || '{"isElectronicLimiter": false}'`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
