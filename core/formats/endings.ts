/** Endings of the files that sculpts are read from; a ZIP may hold any of the others. */
export const SCULPT_ENDINGS = ['stl', 'obj', 'ply', '3mf', 'glb', 'gltf', 'off', 'zip'] as const
