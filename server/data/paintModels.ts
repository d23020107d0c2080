import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type ModelAttributes,
} from 'sequelize'
import { created, options, uuid, version, type Json } from './models'

/** What is kept of the work with colour. */

export class MixRow extends Model<InferAttributes<MixRow>, InferCreationAttributes<MixRow>> {
  declare id: CreationOptional<string>
  declare pieceId: string | null
  declare data: Json
  declare version: CreationOptional<number>
  declare createdAt: CreationOptional<Date>
  declare deletedAt: CreationOptional<Date | null>
}
MixRow.init(
  {
    id: { ...uuid(), primaryKey: true },
    pieceId: DataTypes.UUID,
    data: DataTypes.JSONB,
    version: version(),
    createdAt: created(),
    deletedAt: DataTypes.DATE,
  } as ModelAttributes<MixRow>,
  { ...options, tableName: 'mix' },
)
