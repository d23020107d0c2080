import { z } from 'zod'

/** What a device needs of a layer archive's manifest.json; docs/formats.md describes all of it. */
export const layerManifest = z.object({
  format: z.literal('undercut-layers'),
  version: z.literal(1),
  printer: z.object({
    name: z.string(),
    pixels: z.tuple([z.int().min(1), z.int().min(1)]),
    pitch: z.tuple([z.number().gt(0).max(10), z.number().gt(0).max(10)]),
    height: z.number().gt(0),
  }),
  layerHeight: z.number().gt(0).max(2),
  layers: z.int().min(1).max(200_000),
  bottomLayers: z.int().min(0),
  exposure: z.number().gt(0).max(600),
  bottomExposure: z.number().gt(0).max(600),
  motion: z.object({ lift: z.number().min(0), retract: z.number().min(0), rest: z.number().min(0) }),
  resin: z.object({ name: z.string(), density: z.number().gt(0).default(1.1), millilitres: z.number().min(0) }),
  files: z.array(z.object({ file: z.string().max(400) })).min(1),
})
export type LayerManifest = z.infer<typeof layerManifest>
