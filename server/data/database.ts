import { Sequelize } from 'sequelize'

export const databaseUrl = process.env.DATABASE_URL ?? 'postgres://undercut@127.0.0.1:5432/undercut'
export const database = new Sequelize(databaseUrl, { dialect: 'postgres', logging: false, pool: { max: 8 } })
