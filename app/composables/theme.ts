import { useColorMode } from '@vueuse/core'

/** Day or night, or as the device has it; kept in this browser. */
export const useTheme = () =>
  useColorMode({
    attribute: 'data-theme',
    modes: { light: 'day', dark: 'night' },
    storageKey: 'northtide-theme',
    disableTransition: false,
  })
