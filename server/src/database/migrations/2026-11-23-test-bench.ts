import type { QueryInterface } from "sequelize";

/** Instruments as a shop set them up; the simulated bench ships with every shop. */
export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.query(
    `CREATE TABLE instruments (
      id uuid PRIMARY KEY, version integer NOT NULL DEFAULT 1, name text NOT NULL, kind text NOT NULL,
      driver text NOT NULL, transport text NOT NULL, host text, port integer, device_path text, baud_rate integer,
      is_enabled boolean NOT NULL DEFAULT true, is_removed boolean NOT NULL DEFAULT false);
     INSERT INTO instruments (id, name, kind, driver, transport) VALUES
      ('019a0000-0000-7000-8000-0000000be001', 'LCR meter', 'lcr', 'bench_lines', 'simulated'),
      ('019a0000-0000-7000-8000-0000000be002', 'Multimeter', 'multimeter', 'bench_lines', 'simulated'),
      ('019a0000-0000-7000-8000-0000000be003', 'Oscilloscope', 'oscilloscope', 'bench_lines', 'simulated'),
      ('019a0000-0000-7000-8000-0000000be004', 'Electronic load', 'load', 'bench_lines', 'simulated'),
      ('019a0000-0000-7000-8000-0000000be005', 'Spot thermometer', 'thermometer', 'bench_lines', 'simulated'),
      ('019a0000-0000-7000-8000-0000000be006', 'Mains source', 'mains', 'bench_lines', 'simulated')`,
  );
}
