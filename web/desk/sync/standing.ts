import { useSyncExternalStore } from 'react'

/** How the desk stands to the relay just now. */
export type RelayStanding = 'alone' | 'connecting' | 'connected' | 'unreachable' | 'cut-off'

let standing: RelayStanding = 'connecting'
/** Whether what the door shows is older than the practice here. */
let unpublished = false
/** Why the relay does not take the practice as it is. */
let publishProblem: string | undefined
/** What went wrong here with the last round. */
let trouble: string | undefined
const listeners = new Set<() => void>()

/** Says how it stands now; what is left out stays. */
export function setStanding(
  next: Partial<{
    standing: RelayStanding
    unpublished: boolean
    publishProblem: string | undefined
    trouble: string | undefined
  }>,
): void {
  standing = next.standing ?? standing
  unpublished = next.unpublished ?? unpublished
  if ('publishProblem' in next) publishProblem = next.publishProblem
  if ('trouble' in next) trouble = next.trouble
  for (const listener of listeners) listener()
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

export const useStanding = (): RelayStanding => useSyncExternalStore(subscribe, () => standing)
export const useUnpublished = (): boolean => useSyncExternalStore(subscribe, () => unpublished)
export const usePublishProblem = (): string | undefined =>
  useSyncExternalStore(subscribe, () => publishProblem)
export const useTrouble = (): string | undefined => useSyncExternalStore(subscribe, () => trouble)

/** How it stands, for the rounds themselves. */
export const standingNow = (): RelayStanding => standing
