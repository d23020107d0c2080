/** What a repair does where nothing else is asked; `weld` in mm. */
export const repairDefaults = { weld: 0.002, dropCrumbs: true, fillHoles: true }
