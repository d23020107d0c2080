import type { QueryInterface } from 'sequelize'

/** Devices that were found, print runs, and their plates. A device prints one plate at a time, whoever asks. */
export async function up(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    CREATE TABLE device (
      serial text PRIMARY KEY, kind text NOT NULL, address text NOT NULL, card jsonb NOT NULL, state jsonb,
      printer_id uuid, reachable boolean NOT NULL DEFAULT true, seen_at timestamptz NOT NULL DEFAULT now());
    CREATE TABLE run (
      id uuid PRIMARY KEY, piece_id uuid NOT NULL REFERENCES piece, number int NOT NULL, data jsonb NOT NULL,
      version int NOT NULL DEFAULT 1, created_at timestamptz NOT NULL DEFAULT now(), deleted_at timestamptz,
      UNIQUE (piece_id, number));
    CREATE TABLE plate_print (
      id uuid PRIMARY KEY, run_id uuid NOT NULL REFERENCES run, number int NOT NULL, device text REFERENCES device,
      state text NOT NULL DEFAULT 'planned', data jsonb NOT NULL, progress jsonb NOT NULL DEFAULT '{}',
      version int NOT NULL DEFAULT 1, started_at timestamptz, ended_at timestamptz, UNIQUE (run_id, number));
    CREATE UNIQUE INDEX plate_print_at_work ON plate_print (device) WHERE state IN ('sending', 'printing');
  `)
}

export async function down(query: QueryInterface): Promise<void> {
  await query.sequelize.query('DROP TABLE plate_print; DROP TABLE run; DROP TABLE device;')
}
