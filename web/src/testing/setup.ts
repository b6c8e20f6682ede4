import { config } from '@vue/test-utils'
import { vuetify } from '@/vuetify'

config.global.plugins = [vuetify]
