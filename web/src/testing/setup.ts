import { config } from '@vue/test-utils'
import { loadAllMessages, messages } from '@/messages'
import { vuetify } from '@/vuetify'

config.global.plugins = [vuetify, messages]

await loadAllMessages()
