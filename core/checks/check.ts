import type { z } from 'zod'
import type { Answer, Report } from '../answer'
import type { ByteSource } from '../formats/zipDirectory'
import type { Mesh } from '../mesh/mesh'
import type { Frozen, KindSchema } from '../operations/operation'
import type { MadeLayer } from '../print/slice/layerMaker'
import type { Printer } from '../print/slice/printer'
import type { slice } from '../print/slice/slice'

/** What a check may ask of whoever runs it. */
export interface CheckHost {
  progress: Report
  /** Takes a file of an archive while it is being made; settles when the next may come. */
  putFile: (name: string, bytes: Uint8Array) => Promise<void>
  /** Takes the next bytes of the one file that is made. */
  putBytes: (bytes: Uint8Array) => Promise<void>
  /** bytes of the file that is read, whole; null for a check of meshes */
  file: Uint8Array | null
  /** an archive that is too large to be given whole */
  archive: ByteSource | null
  /** Makes layers in threads beside this one; undefined where there are none. */
  layerThreads: (printer: Printer) => Parameters<typeof slice>[5]
}
export type { MadeLayer }

export interface CheckResult<R> {
  report: R
  mesh?: Mesh
  /** bodies that were read from a file */
  meshes?: { name: string; mesh: Mesh }[]
  /** further files by name, as vertex maps */
  files?: Record<string, Uint8Array>
  /** name of the file that went through `putBytes` */
  streamed?: string
}

/**
 * One kind of check: everything that the program knows of it. Each is a file of its own, named in the registry. Like
 * operations, results are kept for ever under the hash of kind, version, parameters and input meshes.
 *
 * The kernel behind it is imported when it runs, so that whoever only asks loads none.
 *
 * @template S schema of its parameters, with its kind and defaults
 * @template R schema of what it reports
 */
export interface CheckDefinition<S extends KindSchema = KindSchema, R extends z.ZodType = z.ZodType> {
  kind: z.output<S>['kind']
  /** Raised whenever the same question gets another answer, so that a new one never passes for an old one. */
  version: number
  schema: S
  /** What is read from the store must parse by it; what no longer does is computed again. */
  report: R
  /** hashes of the meshes that it needs beside the one that it is asked of, in the order in which it gets them */
  inputs: (params: z.output<S>) => string[]
  /** @param meshes the one that it is asked of, and the others; none for a file or an archive */
  run: (input: {
    meshes: readonly [Mesh, ...Mesh[]]
    params: z.output<S>
    host: CheckHost
  }) => Promise<Answer<CheckResult<Frozen<z.output<R>>>>>
}

const none = (): string[] => []

export function defineCheck<const S extends KindSchema, R extends z.ZodType>(
  d: Omit<CheckDefinition<S, R>, 'kind' | 'inputs'> & Partial<Pick<CheckDefinition<S, R>, 'inputs'>>,
): CheckDefinition<S, R> {
  return { kind: d.schema.shape.kind.value as z.output<S>['kind'], inputs: none, ...d }
}

/** A value per vertex as a check gives it. */
export const vertexFile = (map: Float32Array): CheckResult<{ vertices: number }> => ({
  files: { map: new Uint8Array(map.buffer, map.byteOffset, map.byteLength) },
  report: { vertices: map.length },
})
