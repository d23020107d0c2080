import type { Plugin } from 'vite'

export function markdownPage(): Plugin
