import type { InjectionKey } from 'vue'

/** Meanings that were explained on this screen already; each screen begins with none. */
export const KNOWN_TERMS: InjectionKey<Set<string>> = Symbol('known terms')
