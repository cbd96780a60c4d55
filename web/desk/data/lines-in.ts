import { normalMail } from '@acolhida/core/people'
import { type CourseEvent, replayCourse } from '@acolhida/core/preparing'
import { type FreedEvent, type LineEvent, replayFreed, replayLine } from '@acolhida/core/waiting'
import type { CourseRow, FreedRow, LineRow } from './tables.ts'

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

/** The row of what somebody was given to do, from its record. */
export function courseRow(id: string, events: CourseEvent[]): CourseRow {
  const course = replayCourse(id, events)
  const { given, ended, progress, unsettled } = course
  const open = ended === undefined && given.stations.some((station) => !progress[station.id]?.done)
  return {
    ...{ id, events, course, mail: normalMail(given.person.email) },
    ...(given.booking === undefined ? {} : { booking: given.booking }),
    ...(open ? { open: 1 } : {}),
    ...(unsettled ? { undo: unsettled.until } : {}),
  }
}
