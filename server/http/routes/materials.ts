import { Router } from 'express'
import { z } from 'zod'
import { materialsFromCsv, materialsToCsv } from '../../../core/plan/materials/materialsCsv'
import { readBy } from '../../../contract/answers'
import { material, shoppingRow } from '../../../contract/stock'
import { endpoint } from '../route'
import { shopping } from '../../domain/shopping'
import { listRoutes } from './stockList'

/** Materials as a list that goes in and out, and what has to be bought. */
export const materialRoutes = Router()

endpoint(
  materialRoutes,
  'get',
  '/shopping',
  'What has to be bought for all that is planned',
  { reply: z.array(shoppingRow) },
  shopping,
)

listRoutes(materialRoutes, 'material', 'materials', materialsToCsv, (text) => materialsFromCsv(text, readBy(material)))
