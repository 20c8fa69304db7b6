/** Keep the pages and what they last showed on this device, so that they open where nothing answers.
 * Browsers allow it on this machine and over https; elsewhere there is the field card. */
export function stayReachable() {
  if (!('serviceWorker' in navigator) || !window.isSecureContext || import.meta.env.DEV) return
  window.addEventListener('load', () => {
    void navigator.serviceWorker.register('/sw.js').catch(() => undefined)
  })
}
