import { useSyncExternalStore } from 'react'

let newer = false
const listeners = new Set<() => void>()

/** How often it is asked whether a newer desk is there, in ms. */
const OFTEN = 60 * 60_000

/**
 * Lets the desk open and reload without its relay, where the browser can: it keeps the desk's pages, and says when a
 * newer desk has come.
 */
export async function keepOffline(): Promise<void> {
  if (!('serviceWorker' in navigator)) return
  const { serviceWorker } = navigator
  // The first one takes over from none: that is no newer desk.
  let before = serviceWorker.controller !== null
  serviceWorker.addEventListener('controllerchange', () => {
    if (before) {
      newer = true
      for (const listener of listeners) listener()
    }
    before = true
  })
  const registration = await serviceWorker.register('/sw.js', { updateViaCache: 'none' })
  // Without a relay there is nothing newer to be found.
  setInterval(() => registration.update().catch(() => undefined), OFTEN)
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** Whether the relay has a newer desk than the one that is open. */
export const useNewerDesk = (): boolean => useSyncExternalStore(subscribe, () => newer)
