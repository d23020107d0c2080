import type { z } from 'zod'
import { kindTable } from '../schemas/kindTable'
import { access } from './access'
import { archive } from './archive'
import { axis } from './axis'
import { balance } from './balance'
import { coreChoices } from './coreChoices'
import { coveredDabs } from './coveredDabs'
import { cusps } from './cusps'
import { cutPlanes } from './cutPlanes'
import { detail } from './detail'
import { detailMap } from './detailMap'
import { difference } from './difference'
import { display } from './display'
import { drainSites } from './drainSites'
import { exported } from './exported'
import { fit } from './fit'
import { floor } from './floor'
import { gapMap } from './gapMap'
import { health } from './health'
import { holeNear } from './holeNear'
import { inward } from './inward'
import { keySites } from './keySites'
import { layers } from './layers'
import { lightRoute } from './lightRoute'
import { measures } from './measures'
import { nest } from './nest'
import { orientations } from './orientations'
import { outlines } from './outlines'
import { plate } from './plate'
import { presupported } from './presupported'
import { readFile } from './readFile'
import { rest } from './rest'
import { restingPlaces } from './restingPlaces'
import { rinse } from './rinse'
import { scan } from './scan'
import { skinLine } from './skinLine'
import { slice } from './slice'
import { stepsMap } from './stepsMap'
import { stretchMap } from './stretchMap'
import { surfaceMaps } from './surfaceMaps'
import { thicknessMap } from './thicknessMap'
import { thinness } from './thinness'
import { trapped } from './trapped'
import { ventSite } from './ventSite'
import { wallLoad } from './wallLoad'

/** Every kind of check that can be asked. */
export const CHECKS = [
  health,
  display,
  drainSites,
  holeNear,
  ventSite,
  orientations,
  coveredDabs,
  presupported,
  stepsMap,
  thinness,
  thicknessMap,
  detail,
  detailMap,
  stretchMap,
  restingPlaces,
  axis,
  skinLine,
  cutPlanes,
  lightRoute,
  wallLoad,
  coreChoices,
  trapped,
  rinse,
  layers,
  archive,
  slice,
  nest,
  plate,
  exported,
  outlines,
  measures,
  cusps,
  access,
  rest,
  inward,
  floor,
  scan,
  fit,
  gapMap,
  difference,
  balance,
  keySites,
  surfaceMaps,
] as const

const table = kindTable(CHECKS)
type Definition = (typeof CHECKS)[number] | typeof readFile
export type CheckKind = Definition['kind']
type DefinitionOf<K extends CheckKind> = Extract<Definition, { kind: K }>

/** A question to a mesh, or to an archive, as it crosses the API. */
export const check = table.schema
export type Check = z.output<typeof check>
export type CheckInput = z.input<typeof check>
export type CheckReport<K extends CheckKind = CheckKind> = z.output<DefinitionOf<K>['report']>

/** The definition of a kind; null of what is no check. Reading a file is none that can be asked, and is found here too. */
export const checkOf = (kind: string): Definition | null => (kind === readFile.kind ? readFile : table.of(kind))
/** Hashes of the meshes that a check needs beside the one that it is asked of, in the order in which it gets them. */
export const inputsOf = (c: Check): string[] => (checkOf(c.kind)!.inputs as (c: Check) => string[])(c)
