import 'bootstrap-vue-next'

declare module 'bootstrap-vue-next' {
  /** Our own, beside the library's: see styles/main.scss. */
  interface BaseButtonVariant {
    quiet: unknown
    card: unknown
  }
}
