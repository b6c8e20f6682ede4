/** The component library, dressed in the tokens. */
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const field = { variant: 'outlined', density: 'compact', hideDetails: true, color: 'primary' } as const
const choice = { density: 'compact', hideDetails: true, color: 'primary', ripple: false } as const

/** What the server lets this page's own style elements through by; where the page comes from a file there is none, and no policy. */
const nonce = typeof document === 'undefined' ? undefined : document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce

export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    defaultTheme: 'light',
    ...(nonce ? { cspNonce: nonce } : {}),
    themes: {
      light: { dark: false, colors: { background: '#f4efe6', surface: '#fbf8f2', primary: '#96391f', secondary: '#5e6139' } },
      dark: { dark: true, colors: { background: '#211c17', surface: '#2a241e', primary: '#e5906f', secondary: '#b3b781' } },
    },
  },
  defaults: {
    VBtn: { variant: 'text', ripple: false },
    VTextField: { ...field, type: 'text' },
    VTextarea: { ...field, noResize: false },
    VSelect: { ...field, menuProps: { maxHeight: 420 } },
    VAutocomplete: { ...field, menuProps: { maxHeight: 420 } },
    VCheckbox: { ...choice },
    VCheckboxBtn: { ...choice },
    VRadioGroup: { ...choice },
    VRadio: { ...choice },
    VSlider: { density: 'compact', hideDetails: true, color: 'primary', thumbSize: 16, trackSize: 3 },
    VMenu: { transition: 'fade-transition' },
    VList: { density: 'compact' },
  },
})
