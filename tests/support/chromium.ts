/** Debian's Chromium without its windows, as root and without a graphics card, asking nothing of the network. */
export const chromiumHere = {
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    // Letters where the type sets them, not on whole pixels: as on a screen.
    '--font-render-hinting=none',
  ],
}
