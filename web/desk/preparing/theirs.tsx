import type { Practice } from '@acolhida/core/practice'
import { lazy, Suspense, useState } from 'react'
import type { BookingRow, PersonRow } from '../data/rows.ts'
import { Card } from '../request/card.tsx'
import { Courses } from './courses.tsx'
import { useCoursesOf, useCoursesWith } from './use-courses.ts'

const GivePath = lazy(async () => ({ default: (await import('./give-path.tsx')).GivePath }))
const Give = lazy(async () => ({ default: (await import('./give.tsx')).Give }))

/** What somebody was given to do, and giving them more. */
export function ToPrepareOf({
  practice,
  person,
  bookings,
}: {
  practice: Practice
  person: PersonRow
  bookings: readonly BookingRow[]
}) {
  const all = useCoursesOf(person.emails)
  const [gives, setGives] = useState<'things' | 'path'>()
  const email = person.emails[0]
  const newest = bookings.reduce<BookingRow | undefined>(
    (last, one) => (!last || one.start > last.start ? one : last),
    undefined,
  )
  const { zone = practice.profile.zone, language } = newest?.asked.person ?? {}
  if (!all || email === undefined) return null
  const contact = {
    ...{ name: person.name, email, zone },
    ...(person.phone ? { phone: person.phone } : {}),
    ...(language ? { language } : {}),
  }
  return (
    <Card title="To prepare">
      <div className="mt-2">
        {all.length === 0 && <p className="text-[14px] text-soft">They were given nothing to do yet.</p>}
        <Courses practice={practice} all={all} person={person.id} />
      </div>
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="press" onClick={() => setGives('things')}>
          Give them something…
        </button>
        <button type="button" className="press" onClick={() => setGives('path')}>
          Give them a path…
        </button>
      </div>
      <Suspense>
        {gives === 'things' && (
          <Give
            practice={practice}
            person={contact}
            bookings={bookings}
            before={all}
            close={() => setGives(undefined)}
          />
        )}
        {gives === 'path' && (
          <GivePath practice={practice} person={contact} close={() => setGives(undefined)} />
        )}
      </Suspense>
    </Card>
  )
}

/** What goes with one booking; nothing where nothing does. */
export function ToPrepareWith({ practice, booking }: { practice: Practice; booking: BookingRow }) {
  const all = useCoursesWith(booking.id)
  if (!all || all.length === 0) return null
  return (
    <Card title="To prepare">
      <div className="mt-2">
        <Courses practice={practice} all={all} />
      </div>
    </Card>
  )
}
