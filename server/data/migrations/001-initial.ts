import type { QueryInterface } from 'sequelize'

/** First shape of the database. Blobs are chunked bytea, stored outside the row without compression. */
export async function up(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    CREATE TABLE blob (
      hash text PRIMARY KEY, id uuid NOT NULL UNIQUE, size bigint NOT NULL, created_at timestamptz NOT NULL DEFAULT now());
    CREATE TABLE blob_chunk (
      id uuid NOT NULL, n int NOT NULL, bytes bytea NOT NULL, created_at timestamptz NOT NULL DEFAULT now(), PRIMARY KEY (id, n));
    ALTER TABLE blob_chunk ALTER COLUMN bytes SET STORAGE EXTERNAL;
    CREATE TABLE workshop (
      id int PRIMARY KEY CHECK (id = 1), data jsonb NOT NULL, version int NOT NULL DEFAULT 1);
    CREATE TABLE stock_item (
      id uuid PRIMARY KEY, kind text NOT NULL, data jsonb NOT NULL, version int NOT NULL DEFAULT 1, deleted_at timestamptz);
    CREATE TABLE piece (
      id uuid PRIMARY KEY, data jsonb NOT NULL, version int NOT NULL DEFAULT 1, created_at timestamptz NOT NULL DEFAULT now(), deleted_at timestamptz);
    CREATE TABLE derivation (
      key text PRIMARY KEY, kind text NOT NULL, params jsonb NOT NULL, inputs jsonb NOT NULL,
      status text NOT NULL DEFAULT 'waiting' CHECK (status IN ('waiting', 'running', 'done', 'failed')),
      progress real NOT NULL DEFAULT 0, mesh_hash text, blobs jsonb NOT NULL DEFAULT '{}', report jsonb, problem jsonb,
      created_at timestamptz NOT NULL DEFAULT now(), updated_at timestamptz NOT NULL DEFAULT now());
    CREATE INDEX derivation_open ON derivation (status) WHERE status IN ('waiting', 'running');
    CREATE TABLE part (
      id uuid PRIMARY KEY, piece_id uuid NOT NULL REFERENCES piece ON DELETE CASCADE, name text NOT NULL, file_name text NOT NULL,
      file_hash text NOT NULL, sculpt_mesh text NOT NULL, operations jsonb NOT NULL DEFAULT '[]', awaiting text,
      version int NOT NULL DEFAULT 1, created_at timestamptz NOT NULL DEFAULT now(), deleted_at timestamptz);
    CREATE INDEX part_piece ON part (piece_id);
    CREATE INDEX part_awaiting ON part (awaiting) WHERE awaiting IS NOT NULL;
    CREATE TABLE intake (
      id uuid PRIMARY KEY, piece_id uuid NOT NULL REFERENCES piece ON DELETE CASCADE, file_name text NOT NULL, file_hash text NOT NULL,
      derivation_key text NOT NULL, status text NOT NULL DEFAULT 'waiting', problem jsonb, created_at timestamptz NOT NULL DEFAULT now());
    CREATE TABLE scheme (
      piece_id uuid PRIMARY KEY REFERENCES piece ON DELETE CASCADE, data jsonb NOT NULL, version int NOT NULL DEFAULT 1);
    CREATE TABLE tick (
      piece_id uuid NOT NULL REFERENCES piece ON DELETE CASCADE, step_key text NOT NULL, done_at timestamptz, timer_until timestamptz,
      PRIMARY KEY (piece_id, step_key));
    CREATE TABLE log_entry (
      id uuid PRIMARY KEY, piece_id uuid NOT NULL REFERENCES piece ON DELETE CASCADE, step_key text, text text NOT NULL, photo text,
      at timestamptz NOT NULL DEFAULT now());
  `)
}

export async function down(query: QueryInterface): Promise<void> {
  await query.sequelize.query(
    'DROP TABLE log_entry, tick, scheme, intake, part, derivation, piece, stock_item, workshop, blob_chunk, blob',
  )
}
