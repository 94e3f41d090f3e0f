import '@fontsource/atkinson-hyperlegible/400.css'
import '@fontsource/atkinson-hyperlegible/700.css'
import '@fontsource-variable/literata/index.css'
import '@fontsource-variable/literata/wght-italic.css'
import 'element-plus/theme-chalk/index.css'
import './theme/tokens.css'
import './theme/base.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import { z } from 'zod'
import App from './App.vue'
import { createRooms } from './router.ts'

// The page's security policy allows no code made from text; schemas are checked without it.
z.config({ jitless: true })

const pinia = createPinia()
createApp(App).use(pinia).use(createRooms(pinia)).mount('#app')
