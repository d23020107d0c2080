import { config } from '@vue/test-utils'
import { i18n } from '../web/i18n'

// What is mounted in a test speaks the words that the page speaks.
config.global.plugins.push(i18n)
