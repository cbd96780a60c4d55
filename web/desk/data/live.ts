import type { CalendarState } from '@acolhida/core/contract'
import type { Entry } from '@acolhida/core/openings'
import type { Practice } from '@acolhida/core/practice'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMemo } from 'react'
import { useOutletContext } from 'react-router'
import { db } from './db.ts'
import type { BookingRow } from './rows.ts'
import type { Connection, Intention, LineRow } from './tables.ts'

/**
 * What every page may look at, live: all of it small, however long the practice goes back. Bookings and people are
 * asked for by what a page shows.
 */
export interface Desk {
  practice: Practice
  /** Times of the practitioner's own, and of calendar files. */
  sessions: Entry[]
  intentions: Intention[]
  connection: Pick<Connection, 'key' | 'feed' | 'gap'>
  openEnquiries: number
  /** Times that are free just now, and find somebody. */
  openFreed: number
  /** Places in line to which a freed time is held out. */
  heldOut: LineRow[]
  calendars: CalendarState[]
  /** Requests whose record says that somebody's word or choice is awaited; `stateAt` tells whether it still is. */
  requested: BookingRow[]
}

/** `undefined` while loading, `null` when this browser holds no practice yet. */
export function useDeskData(): Desk | null | undefined {
  const practice = useLiveQuery(async () => (await db.practice.get('practice'))?.practice ?? null)
  const sessions = useLiveQuery(() => db.sessions.toArray())
  const intentions = useLiveQuery(() => db.intentions.orderBy('order').toArray())
  const calendars = useLiveQuery(() => db.calendars.toArray())
  const openEnquiries = useLiveQuery(() => db.enquiries.where('state').equals('open').count())
  const openFreed = useLiveQuery(() => db.freed.where('open').equals(1).count())
  const heldOut = useLiveQuery(() =>
    db.lines
      .where('open')
      .equals(1)
      .filter(({ line }) => line.offer !== undefined)
      .toArray(),
  )
  const requested = useLiveQuery(() =>
    db.bookings.where('[status+at]').between(['requested', 0], ['requested', Number.MAX_VALUE]).toArray(),
  )
  const row = useLiveQuery(async () => (await db.connection.get('link')) ?? null)
  const { key, feed, gap } = row ?? {}
  const looked = row !== undefined
  const connection = useMemo(
    () => ({ ...(key ? { key } : {}), ...(feed ? { feed } : {}), ...(gap ? { gap } : {}) }),
    [key, feed, gap],
  )
  return useMemo(() => {
    if (practice === null) return null
    if (!practice || !sessions || !intentions || !calendars || !requested || !heldOut || !looked)
      return undefined
    return {
      practice,
      sessions,
      intentions,
      connection,
      openEnquiries: openEnquiries ?? 0,
      openFreed: openFreed ?? 0,
      heldOut,
      calendars,
      requested,
    }
  }, [
    practice,
    sessions,
    intentions,
    calendars,
    openEnquiries,
    openFreed,
    heldOut,
    requested,
    connection,
    looked,
  ])
}

export const useDesk = (): Desk => useOutletContext<Desk>()
