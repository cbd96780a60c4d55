import type { RelayStatus } from '@acolhida/core/contract'
import { useEffect, useState } from 'react'

/** How the relay is, asked once: `undefined` while it is asked, `null` when it can't be reached. */
export function useRelayStatus(): RelayStatus | null | undefined {
  const [status, setStatus] = useState<RelayStatus | null>()
  useEffect(() => {
    import('./relay.ts')
      .then(({ deskRelay }) => deskRelay.status())
      .then(setStatus)
      .catch(() => setStatus(null))
  }, [])
  return status
}
