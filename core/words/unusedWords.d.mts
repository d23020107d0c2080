export const UNUSED_WORDS: string
