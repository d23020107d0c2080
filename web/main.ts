import '@fontsource-variable/source-sans-3'
import './styles/main.scss'
import { createBootstrap } from 'bootstrap-vue-next'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { i18n } from './i18n'
import { router } from './router'

createApp(App).use(createPinia()).use(createBootstrap()).use(i18n).use(router).mount('#app')
