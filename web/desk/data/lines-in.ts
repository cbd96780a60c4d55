import { normalMail } from '@acolhida/core/people'
import { type FreedEvent, type LineEvent, replayFreed, replayLine } from '@acolhida/core/waiting'
import type { FreedRow, LineRow } from './tables.ts'

/** The row of a place in line, from its record. */
export function lineRow(id: string, events: LineEvent[]): LineRow {
  const line = replayLine(id, events)
  const { person, service } = line.joined
  const open = line.status === 'waiting' || line.status === 'paused'
  return { id, events, line, mail: normalMail(person.email), service, ...(open ? { open: 1 } : {}) }
}

/** The row of a freed time, from its record. */
export function freedRow(id: string, events: FreedEvent[]): FreedRow {
  const freed = replayFreed(id, events)
  return { id, at: freed.at, events, freed, ...(freed.ended ? {} : { open: 1 }) }
}
