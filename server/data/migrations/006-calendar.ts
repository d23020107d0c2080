import type { QueryInterface } from 'sequelize'

/**
 * The workshop's calendar: when a step was begun and how long it took, clocks that run, what a hand wants of a step, what is done
 * together, the order of the timetable, the air in the room, and what was taken from stock for which step.
 */
export async function up(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    ALTER TABLE tick ADD COLUMN begun_at timestamptz, ADD COLUMN took int, ADD COLUMN planned int;
    CREATE TABLE timer (
      id uuid PRIMARY KEY, piece_id uuid NOT NULL REFERENCES piece, step_key text NOT NULL, kind text NOT NULL,
      title text NOT NULL DEFAULT '', until timestamptz NOT NULL, heard_at timestamptz,
      UNIQUE (piece_id, step_key, kind));
    INSERT INTO timer (id, piece_id, step_key, kind, title, until)
      SELECT gen_random_uuid(), piece_id, step_key, 'wait', title, timer_until FROM tick WHERE timer_until > now();
    ALTER TABLE tick DROP COLUMN timer_until;
    CREATE TABLE step_edit (
      piece_id uuid NOT NULL REFERENCES piece, step_key text NOT NULL, data jsonb NOT NULL,
      PRIMARY KEY (piece_id, step_key));
    CREATE TABLE batch (id uuid PRIMARY KEY, data jsonb NOT NULL, created_at timestamptz NOT NULL DEFAULT now());
    CREATE TABLE timetable (id int PRIMARY KEY, step_order jsonb NOT NULL, kept_at timestamptz NOT NULL DEFAULT now());
    CREATE TABLE room_reading (at timestamptz PRIMARY KEY, temperature real NOT NULL, humidity real NOT NULL);
    CREATE TABLE booking (
      piece_id uuid NOT NULL REFERENCES piece, step_key text NOT NULL, item_id uuid NOT NULL REFERENCES stock_item,
      amount double precision NOT NULL, PRIMARY KEY (piece_id, step_key, item_id));
  `)
}

export async function down(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    DROP TABLE booking; DROP TABLE room_reading; DROP TABLE timetable; DROP TABLE batch; DROP TABLE step_edit;
    ALTER TABLE tick ADD COLUMN timer_until timestamptz; DROP TABLE timer;
    ALTER TABLE tick DROP COLUMN begun_at, DROP COLUMN took, DROP COLUMN planned;
  `)
}
