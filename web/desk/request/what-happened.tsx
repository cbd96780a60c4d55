import { type StoredEvent, upcast } from '@acolhida/core/booking'
import type { Practice } from '@acolhida/core/practice'
import { formatInstant, moment } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { db } from '../data/db.ts'
import { homeZone } from '../parts/words.ts'
import { Card } from './card.tsx'
import { happenedWords } from './happened-words.ts'

/** The record of a booking, as it is told: what happened, when and by whom. */
export function WhatHappened({ practice, booking }: { practice: Practice; booking: string }) {
  const events = useLiveQuery(async () => {
    const rows = await db.events
      .where('[booking+seq]')
      .between([booking, 0], [booking, Number.POSITIVE_INFINITY])
      .toArray()
    return rows.map(({ event }) => upcast(event as StoredEvent))
  }, [booking])
  if (!events || events.length === 0) return null
  const lines = happenedWords(practice, events)
  return (
    <Card title="What happened" aside={`${events.length} in the record`}>
      <ol className="mt-2 grid gap-1.5 text-[14px]">
        {events.map(({ at }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a record only grows at its end
          <li key={i} className="grid gap-x-3 sm:grid-cols-[112px_1fr]">
            <time className="figures text-soft" dateTime={formatInstant(at)}>
              {moment(at, homeZone(practice))}
            </time>
            <span className="min-w-0 whitespace-pre-line wrap-anywhere">{lines[i]}</span>
          </li>
        ))}
      </ol>
    </Card>
  )
}
