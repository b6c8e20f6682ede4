import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import '@fontsource-variable/bricolage-grotesque/wght.css'
import './styles/tokens.css'
import 'vuetify/styles/core'
import './styles/kit.css'
import './styles/base.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { loadMessages, messages } from './messages'
import { router } from './router'
import { vuetify } from './vuetify'

await loadMessages('frame')
createApp(App).use(createPinia()).use(router).use(vuetify).use(messages).mount('#app')
