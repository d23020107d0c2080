/** What amounts of materials are counted in. */
export const STOCK_UNITS = ['ml', 'g', 'mm', 'sheets', 'pieces'] as const
export type StockUnit = (typeof STOCK_UNITS)[number]
