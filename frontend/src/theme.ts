// Paper, ink, copper. The four verdict colours only support words and shapes.
// Layers and core alone: nothing here uses the utility classes, which weigh 28 kB.
import 'vuetify/styles/layers'
import 'vuetify/styles/core'

import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const variables = { 'medium-emphasis-opacity': 0.78, 'disabled-opacity': 0.55, 'border-color': '#8A8474' }

export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    defaultTheme: 'system',
    // The colours are the one style that is made in the browser; the page's one-time word lets it in.
    cspNonce: document.querySelector<HTMLMetaElement>('meta[name=csp-nonce]')?.content,
    themes: {
      light: {
        dark: false,
        variables,
        colors: {
          background: '#F5F0E8',
          surface: '#FFFEF9',
          primary: '#A04B22',
          ink: '#1C2430',
          bar: '#1C2430',
          next: '#FBEDE0',
          track: '#E7E1D3',
          line: '#D5CDBC',
          quiet: '#5A606B',
          meets: '#17695D',
          'falls-short': '#B0301C',
          needs: '#7A5600',
          'your-call': '#5A4597',
          'conductor-l': '#7A4A21',
          'conductor-n': '#2A5FA8',
          'conductor-e': '#2F8A3C',
        },
      },
      dark: {
        dark: true,
        variables: { ...variables, 'border-color': '#6C7482' },
        colors: {
          background: '#161B23',
          surface: '#1D242F',
          primary: '#EE9A6C',
          ink: '#F2EDE2',
          bar: '#0E1218',
          next: '#2B2723',
          track: '#323B48',
          line: '#3C4554',
          quiet: '#AEB4BF',
          meets: '#6CCBB9',
          'falls-short': '#FF9683',
          needs: '#E7BE5F',
          'your-call': '#BFAEF5',
          'conductor-l': '#C98B54',
          'conductor-n': '#7FB0F0',
          'conductor-e': '#5CBF6C',
        },
      },
    },
  },
  defaults: {
    VBtn: { variant: 'flat', rounded: 'md' },
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto', persistentHint: true },
    VTextarea: {
      variant: 'outlined',
      density: 'compact',
      hideDetails: 'auto',
      persistentHint: true,
      autoGrow: true,
      rows: 2,
    },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: 'auto', persistentHint: true },
    VCombobox: { variant: 'outlined', density: 'compact', hideDetails: 'auto', persistentHint: true },
    VDialog: { maxWidth: 640 },
  },
})
