import type { QueryInterface } from 'sequelize'

/** What a ticked step was called, so that it stays in the record when the plan no longer has it; flaws that inspection found. */
export async function up(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    ALTER TABLE tick ADD COLUMN title text NOT NULL DEFAULT '', ADD COLUMN phase text NOT NULL DEFAULT '';
    CREATE TABLE flaw (
      id uuid PRIMARY KEY, piece_id uuid NOT NULL REFERENCES piece, part_id uuid NOT NULL REFERENCES part,
      pass int NOT NULL, closed_pass int, state text NOT NULL DEFAULT 'open', data jsonb NOT NULL,
      version int NOT NULL DEFAULT 1, created_at timestamptz NOT NULL DEFAULT now());
    CREATE INDEX flaw_of_piece ON flaw (piece_id);
    CREATE TABLE inspection (
      piece_id uuid NOT NULL REFERENCES piece, pass int NOT NULL, begun_at timestamptz NOT NULL DEFAULT now(),
      ended_at timestamptz, note text NOT NULL DEFAULT '', PRIMARY KEY (piece_id, pass));
  `)
}

export async function down(query: QueryInterface): Promise<void> {
  await query.sequelize.query(
    'DROP TABLE inspection; DROP TABLE flaw; ALTER TABLE tick DROP COLUMN title, DROP COLUMN phase;',
  )
}
