import type { QueryInterface } from 'sequelize'

/** The mix book: every mix that was used, to be mixed again. */
export async function up(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    CREATE TABLE mix (
      id uuid PRIMARY KEY, piece_id uuid REFERENCES piece, data jsonb NOT NULL, version int NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL DEFAULT now(), deleted_at timestamptz);
    CREATE INDEX mix_of_piece ON mix (piece_id);
  `)
}

export async function down(query: QueryInterface): Promise<void> {
  await query.sequelize.query('DROP TABLE mix;')
}
