import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type ModelAttributes,
} from 'sequelize'
import { created, options, text, uuid, version, type Json } from './models'

/** What is kept of the work at the bench: steps, clocks, wishes, the log, flaws, air and what was used up. */

export class Tick extends Model<InferAttributes<Tick>, InferCreationAttributes<Tick>> {
  declare pieceId: string
  declare stepKey: string
  declare doneAt: CreationOptional<Date | null>
  declare begunAt: CreationOptional<Date | null>
  /** s of hands-on work: as it went, and as it was planned then */
  declare took: CreationOptional<number | null>
  declare planned: CreationOptional<number | null>
  declare title: CreationOptional<string>
  declare phase: CreationOptional<string>
}
Tick.init(
  {
    pieceId: { type: DataTypes.UUID, primaryKey: true },
    stepKey: { type: text, primaryKey: true },
    doneAt: DataTypes.DATE,
    begunAt: DataTypes.DATE,
    took: DataTypes.INTEGER,
    planned: DataTypes.INTEGER,
    title: { type: text, defaultValue: '' },
    phase: { type: text, defaultValue: '' },
  } as ModelAttributes<Tick>,
  { ...options, tableName: 'tick' },
)

export class LogRow extends Model<InferAttributes<LogRow>, InferCreationAttributes<LogRow>> {
  declare id: CreationOptional<string>
  declare pieceId: string
  declare stepKey: string | null
  declare text: string
  declare photo: string | null
  declare at: CreationOptional<Date>
}
LogRow.init(
  {
    id: { ...uuid(), primaryKey: true },
    pieceId: DataTypes.UUID,
    stepKey: text,
    text,
    photo: text,
    at: created(),
  } as ModelAttributes<LogRow>,
  { ...options, tableName: 'log_entry' },
)

export class FlawRow extends Model<InferAttributes<FlawRow>, InferCreationAttributes<FlawRow>> {
  declare id: string
  declare pieceId: string
  declare partId: string
  /** in which it was found, and in which it was found mended */
  declare pass: number
  declare closedPass: CreationOptional<number | null>
  declare state: CreationOptional<'open' | 'mended' | 'accepted'>
  declare data: Json
  declare version: CreationOptional<number>
  declare createdAt: CreationOptional<Date>
}
FlawRow.init(
  {
    id: { type: DataTypes.UUID, primaryKey: true },
    pieceId: DataTypes.UUID,
    partId: DataTypes.UUID,
    pass: DataTypes.INTEGER,
    closedPass: DataTypes.INTEGER,
    state: { type: text, defaultValue: 'open' },
    data: DataTypes.JSONB,
    version: version(),
    createdAt: created(),
  } as ModelAttributes<FlawRow>,
  { ...options, tableName: 'flaw' },
)

export class InspectionRow extends Model<InferAttributes<InspectionRow>, InferCreationAttributes<InspectionRow>> {
  declare pieceId: string
  declare pass: number
  declare begunAt: CreationOptional<Date>
  declare endedAt: CreationOptional<Date | null>
  declare note: CreationOptional<string>
}
InspectionRow.init(
  {
    pieceId: { type: DataTypes.UUID, primaryKey: true },
    pass: { type: DataTypes.INTEGER, primaryKey: true },
    begunAt: created(),
    endedAt: DataTypes.DATE,
    note: { type: text, defaultValue: '' },
  } as ModelAttributes<InspectionRow>,
  { ...options, tableName: 'inspection' },
)

export class TimerRow extends Model<InferAttributes<TimerRow>, InferCreationAttributes<TimerRow>> {
  declare id: CreationOptional<string>
  declare pieceId: string
  declare stepKey: string
  declare kind: string
  declare title: string
  declare until: Date
  declare heardAt: CreationOptional<Date | null>
}
TimerRow.init(
  {
    id: { ...uuid(), primaryKey: true },
    pieceId: DataTypes.UUID,
    stepKey: text,
    kind: text,
    title: { type: text, defaultValue: '' },
    until: DataTypes.DATE,
    heardAt: DataTypes.DATE,
  } as ModelAttributes<TimerRow>,
  { ...options, tableName: 'timer' },
)

export class StepEditRow extends Model<InferAttributes<StepEditRow>, InferCreationAttributes<StepEditRow>> {
  declare pieceId: string
  declare stepKey: string
  declare data: Json
}
StepEditRow.init(
  {
    pieceId: { type: DataTypes.UUID, primaryKey: true },
    stepKey: { type: text, primaryKey: true },
    data: DataTypes.JSONB,
  } as ModelAttributes<StepEditRow>,
  { ...options, tableName: 'step_edit' },
)

export class BatchRow extends Model<InferAttributes<BatchRow>, InferCreationAttributes<BatchRow>> {
  declare id: string
  declare data: Json
  declare createdAt: CreationOptional<Date>
}
BatchRow.init(
  {
    id: { type: DataTypes.UUID, primaryKey: true },
    data: DataTypes.JSONB,
    createdAt: created(),
  } as ModelAttributes<BatchRow>,
  { ...options, tableName: 'batch' },
)

export class StepOrderRow extends Model<InferAttributes<StepOrderRow>, InferCreationAttributes<StepOrderRow>> {
  declare id: number
  declare stepOrder: string[]
  declare keptAt: CreationOptional<Date>
}
StepOrderRow.init(
  {
    id: { type: DataTypes.INTEGER, primaryKey: true },
    stepOrder: DataTypes.JSONB,
    keptAt: created(),
  } as ModelAttributes<StepOrderRow>,
  { ...options, tableName: 'timetable' },
)

export class RoomReading extends Model<InferAttributes<RoomReading>, InferCreationAttributes<RoomReading>> {
  declare at: Date
  declare temperature: number
  declare humidity: number
}
RoomReading.init(
  {
    at: { type: DataTypes.DATE, primaryKey: true },
    temperature: DataTypes.FLOAT,
    humidity: DataTypes.FLOAT,
  } as ModelAttributes<RoomReading>,
  { ...options, tableName: 'room_reading' },
)

export class Booking extends Model<InferAttributes<Booking>, InferCreationAttributes<Booking>> {
  declare pieceId: string
  declare stepKey: string
  declare itemId: string
  declare amount: number
}
Booking.init(
  {
    pieceId: { type: DataTypes.UUID, primaryKey: true },
    stepKey: { type: text, primaryKey: true },
    itemId: { type: DataTypes.UUID, primaryKey: true },
    amount: DataTypes.DOUBLE,
  } as ModelAttributes<Booking>,
  { ...options, tableName: 'booking' },
)
