import type { QueryInterface } from 'sequelize'

/** A scheme kept one label map for the whole piece; now each part has its own, and areas stand with the map. */
export async function up(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    UPDATE scheme SET data = (data - 'labels' - 'meshHash') || jsonb_build_object(
      'regions', (SELECT coalesce(jsonb_agg(r - 'area'), '[]') FROM jsonb_array_elements(data->'regions') r),
      'maps', coalesce((
        SELECT jsonb_build_array(jsonb_build_object(
          'partId', p.id, 'meshHash', scheme.data->'meshHash', 'labels', scheme.data->'labels',
          'areas', (SELECT coalesce(jsonb_object_agg(r->>'id', r->'area'), '{}')
                    FROM jsonb_array_elements(scheme.data->'regions') r WHERE jsonb_typeof(r->'area') = 'number')))
        FROM part p WHERE p.piece_id = scheme.piece_id AND jsonb_typeof(scheme.data->'labels') = 'string'
        ORDER BY p.created_at LIMIT 1), '[]'))
    WHERE NOT data ? 'maps'
  `)
}

export async function down(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    UPDATE scheme SET data = (data - 'maps') || jsonb_build_object(
      'meshHash', data->'maps'->0->'meshHash', 'labels', data->'maps'->0->'labels',
      'regions', (SELECT coalesce(jsonb_agg(r || jsonb_build_object('area', scheme.data->'maps'->0->'areas'->(r->>'id'))), '[]')
                  FROM jsonb_array_elements(data->'regions') r))
  `)
}
