/** Marks of the binary container of glTF 2.0. */
export const GLB_MAGIC = 0x46546c67,
  CHUNK_JSON = 0x4e4f534a,
  CHUNK_BIN = 0x004e4942
