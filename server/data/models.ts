import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type CreationOptional,
  type ModelAttributes,
} from 'sequelize'
import { database } from './database'
import type { Problem } from '../../core/answer'

export type Json = Record<string, unknown>
export type ProblemJson = Problem
export const options = { sequelize: database, timestamps: false, underscored: true, freezeTableName: true } as const
// Sequelize writes into attribute objects, so each model gets its own.
export const uuid = () => ({ type: DataTypes.UUID, defaultValue: DataTypes.UUIDV4 })
export const created = () => ({ type: DataTypes.DATE, defaultValue: DataTypes.NOW })
export const version = () => ({ type: DataTypes.INTEGER, defaultValue: 1 })
export const text = DataTypes.TEXT

export class Piece extends Model<InferAttributes<Piece>, InferCreationAttributes<Piece>> {
  declare id: CreationOptional<string>
  declare data: Json
  declare version: CreationOptional<number>
  declare createdAt: CreationOptional<Date>
  declare deletedAt: CreationOptional<Date | null>
}
Piece.init(
  {
    id: { ...uuid(), primaryKey: true },
    data: DataTypes.JSONB,
    version: version(),
    createdAt: created(),
    deletedAt: DataTypes.DATE,
  } as ModelAttributes<Piece>,
  { ...options, tableName: 'piece' },
)

export class Part extends Model<InferAttributes<Part>, InferCreationAttributes<Part>> {
  declare id: CreationOptional<string>
  declare pieceId: string
  declare name: string
  declare fileName: string
  declare fileHash: string
  declare sculptMesh: string
  declare sculptId: CreationOptional<string | null>
  declare operations: CreationOptional<unknown[]>
  declare awaiting: CreationOptional<string | null>
  declare version: CreationOptional<number>
  declare createdAt: CreationOptional<Date>
  declare deletedAt: CreationOptional<Date | null>
}
Part.init(
  {
    id: { ...uuid(), primaryKey: true },
    pieceId: DataTypes.UUID,
    name: text,
    fileName: text,
    fileHash: text,
    sculptMesh: text,
    sculptId: DataTypes.UUID,
    operations: { type: DataTypes.JSONB, defaultValue: [] },
    awaiting: text,
    version: version(),
    createdAt: created(),
    deletedAt: DataTypes.DATE,
  } as ModelAttributes<Part>,
  { ...options, tableName: 'part' },
)

export class Derivation extends Model<InferAttributes<Derivation>, InferCreationAttributes<Derivation>> {
  declare key: string
  declare kind: string
  declare params: Json
  declare inputs: string[]
  declare status: CreationOptional<'waiting' | 'running' | 'done' | 'failed'>
  declare progress: CreationOptional<number>
  declare meshHash: CreationOptional<string | null>
  declare blobs: CreationOptional<Record<string, string>>
  declare report: CreationOptional<unknown>
  declare problem: CreationOptional<ProblemJson | null>
  declare updatedAt: CreationOptional<Date>
}
Derivation.init(
  {
    key: { type: text, primaryKey: true },
    kind: text,
    params: DataTypes.JSONB,
    inputs: DataTypes.JSONB,
    status: { type: text, defaultValue: 'waiting' },
    progress: { type: DataTypes.FLOAT, defaultValue: 0 },
    meshHash: text,
    blobs: { type: DataTypes.JSONB, defaultValue: {} },
    report: DataTypes.JSONB,
    problem: DataTypes.JSONB,
    updatedAt: created(),
  } as ModelAttributes<Derivation>,
  { ...options, tableName: 'derivation' },
)

export class Intake extends Model<InferAttributes<Intake>, InferCreationAttributes<Intake>> {
  declare id: CreationOptional<string>
  /** null: taken into the library only */
  declare pieceId: string | null
  declare fileName: string
  declare fileHash: string
  declare derivationKey: string
  declare status: CreationOptional<'waiting' | 'done' | 'refused'>
  declare problem: CreationOptional<ProblemJson | null>
  declare createdAt: CreationOptional<Date>
}
Intake.init(
  {
    id: { ...uuid(), primaryKey: true },
    pieceId: DataTypes.UUID,
    fileName: text,
    fileHash: text,
    derivationKey: text,
    status: { type: text, defaultValue: 'waiting' },
    problem: DataTypes.JSONB,
    createdAt: created(),
  } as ModelAttributes<Intake>,
  { ...options, tableName: 'intake' },
)

export class SculptRow extends Model<InferAttributes<SculptRow>, InferCreationAttributes<SculptRow>> {
  declare id: CreationOptional<string>
  declare family: string
  declare edition: CreationOptional<number>
  declare fileName: string
  declare fileHash: string
  declare mesh: string
  declare data: Json
  declare version: CreationOptional<number>
  declare createdAt: CreationOptional<Date>
  declare deletedAt: CreationOptional<Date | null>
}
SculptRow.init(
  {
    id: { ...uuid(), primaryKey: true },
    family: DataTypes.UUID,
    edition: { type: DataTypes.INTEGER, defaultValue: 1 },
    fileName: text,
    fileHash: text,
    mesh: text,
    data: DataTypes.JSONB,
    version: version(),
    createdAt: created(),
    deletedAt: DataTypes.DATE,
  } as ModelAttributes<SculptRow>,
  { ...options, tableName: 'sculpt' },
)

export class StockItem extends Model<InferAttributes<StockItem>, InferCreationAttributes<StockItem>> {
  declare id: CreationOptional<string>
  declare kind: 'printer' | 'resin' | 'paint' | 'material'
  declare data: Json
  declare version: CreationOptional<number>
  declare deletedAt: CreationOptional<Date | null>
}
StockItem.init(
  {
    id: { ...uuid(), primaryKey: true },
    kind: text,
    data: DataTypes.JSONB,
    version: version(),
    deletedAt: DataTypes.DATE,
  } as ModelAttributes<StockItem>,
  { ...options, tableName: 'stock_item' },
)

export class SchemeRow extends Model<InferAttributes<SchemeRow>, InferCreationAttributes<SchemeRow>> {
  declare pieceId: string
  declare data: Json
  declare version: CreationOptional<number>
}
SchemeRow.init(
  {
    pieceId: { type: DataTypes.UUID, primaryKey: true },
    data: DataTypes.JSONB,
    version: version(),
  } as ModelAttributes<SchemeRow>,
  { ...options, tableName: 'scheme' },
)

export class WorkshopRow extends Model<InferAttributes<WorkshopRow>, InferCreationAttributes<WorkshopRow>> {
  declare id: number
  declare data: Json
  declare version: CreationOptional<number>
}
WorkshopRow.init(
  {
    id: { type: DataTypes.INTEGER, primaryKey: true },
    data: DataTypes.JSONB,
    version: version(),
  } as ModelAttributes<WorkshopRow>,
  { ...options, tableName: 'workshop' },
)

export class DeviceRow extends Model<InferAttributes<DeviceRow>, InferCreationAttributes<DeviceRow>> {
  declare serial: string
  declare kind: string
  declare address: string
  declare card: Json
  declare state: CreationOptional<Json | null>
  declare printerId: CreationOptional<string | null>
  declare reachable: CreationOptional<boolean>
  declare seenAt: CreationOptional<Date>
}
DeviceRow.init(
  {
    serial: { type: text, primaryKey: true },
    kind: text,
    address: text,
    card: DataTypes.JSONB,
    state: DataTypes.JSONB,
    printerId: DataTypes.UUID,
    reachable: { type: DataTypes.BOOLEAN, defaultValue: true },
    seenAt: created(),
  } as ModelAttributes<DeviceRow>,
  { ...options, tableName: 'device' },
)

export class RunRow extends Model<InferAttributes<RunRow>, InferCreationAttributes<RunRow>> {
  declare id: CreationOptional<string>
  declare pieceId: string
  declare number: number
  declare data: Json
  declare version: CreationOptional<number>
  declare createdAt: CreationOptional<Date>
  declare deletedAt: CreationOptional<Date | null>
}
RunRow.init(
  {
    id: { ...uuid(), primaryKey: true },
    pieceId: DataTypes.UUID,
    number: DataTypes.INTEGER,
    data: DataTypes.JSONB,
    version: version(),
    createdAt: created(),
    deletedAt: DataTypes.DATE,
  } as ModelAttributes<RunRow>,
  { ...options, tableName: 'run' },
)

export class PlatePrint extends Model<InferAttributes<PlatePrint>, InferCreationAttributes<PlatePrint>> {
  declare id: CreationOptional<string>
  declare runId: string
  declare number: number
  declare device: CreationOptional<string | null>
  declare state: CreationOptional<'planned' | 'sending' | 'printing' | 'ended' | 'judged'>
  declare data: Json
  declare progress: CreationOptional<Json>
  declare version: CreationOptional<number>
  declare startedAt: CreationOptional<Date | null>
  declare endedAt: CreationOptional<Date | null>
}
PlatePrint.init(
  {
    id: { ...uuid(), primaryKey: true },
    runId: DataTypes.UUID,
    number: DataTypes.INTEGER,
    device: text,
    state: { type: text, defaultValue: 'planned' },
    data: DataTypes.JSONB,
    progress: { type: DataTypes.JSONB, defaultValue: {} },
    version: version(),
    startedAt: DataTypes.DATE,
    endedAt: DataTypes.DATE,
  } as ModelAttributes<PlatePrint>,
  { ...options, tableName: 'plate_print' },
)
