import type { QueryInterface } from 'sequelize'

/** A library of sculpts beside the pieces; what was taken in before is in it, once for each mesh. Remembered poses are the workshop's. */
export async function up(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    CREATE TABLE sculpt (
      id uuid PRIMARY KEY, family uuid NOT NULL, edition int NOT NULL DEFAULT 1, file_name text NOT NULL, file_hash text NOT NULL,
      mesh text NOT NULL, data jsonb NOT NULL, version int NOT NULL DEFAULT 1, created_at timestamptz NOT NULL DEFAULT now(),
      deleted_at timestamptz);
    CREATE INDEX sculpt_mesh ON sculpt (mesh);
    ALTER TABLE part ADD COLUMN sculpt_id uuid REFERENCES sculpt;
    ALTER TABLE intake ALTER COLUMN piece_id DROP NOT NULL;
    INSERT INTO sculpt (id, family, file_name, file_hash, mesh, data, created_at)
      SELECT id, id, file_name, file_hash, sculpt_mesh,
        jsonb_build_object('name', name, 'tags', '[]'::jsonb, 'origin', '', 'licence', '', 'maySell', 'ask'), created_at
      FROM (SELECT DISTINCT ON (sculpt_mesh) * FROM part WHERE file_name <> '' ORDER BY sculpt_mesh, created_at) first;
    UPDATE part SET sculpt_id = sculpt.id FROM sculpt WHERE sculpt.mesh = part.sculpt_mesh;
    UPDATE workshop SET data = data || jsonb_build_object('poses', coalesce((
      SELECT jsonb_agg(pose) FROM piece, jsonb_array_elements(coalesce(piece.data->'poses', '[]')) pose), '[]'));
  `)
}

export async function down(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    DELETE FROM intake WHERE piece_id IS NULL;
    ALTER TABLE intake ALTER COLUMN piece_id SET NOT NULL;
    ALTER TABLE part DROP COLUMN sculpt_id;
    DROP TABLE sculpt;
  `)
}
