import type { ThemeDefinition } from 'vuetify'

const linen: ThemeDefinition = {
  dark: false,
  colors: {
    background: '#F5F0E4',
    surface: '#FFFDF7',
    primary: '#2B2118',
    secondary: '#7A5230',
    error: '#A23B1E',
    'on-background': '#2B2118',
    'on-surface': '#2B2118',
  },
}

const lamp: ThemeDefinition = {
  dark: true,
  colors: {
    background: '#1C1611',
    surface: '#261E17',
    primary: '#F0E4CC',
    secondary: '#C99B69',
    error: '#F2937A',
    'on-background': '#F0E4CC',
    'on-surface': '#F0E4CC',
  },
}

export const themes = { linen, lamp }
