import { busyTimes } from '../formats/busy.ts'
import { calendarsIn, propertiesOf, propertyOf, titleOf, writtenIn } from '../formats/content.ts'
import { formatInstant, type Instant, MINUTE, type Zone } from '../time/index.ts'
import { NoPeople } from './arrival.ts'
import type { PeopleTable } from './people-table.ts'

/** How far ahead sessions of a calendar are looked for, in ms. */
const AHEAD = 2 * 366 * 24 * 60 * MINUTE
/** What is as long as a day, or longer, is no session. */
const LONGEST = 24 * 60

/** The columns of a table that a calendar is read as. */
const HEADINGS = ['Name', 'Email', 'Start', 'Minutes', 'Session', 'Place']
const NAMED_MAIL = /[\w.+-]+@[\w-]+(?:\.[\w-]+)+/

/**
 * Reads the coming events of a calendar (RFC 5545) as a table of sessions: repeated ones one by one, those of whole days
 * left out. Who comes is the first attendee, else the first address in the description, else nobody.
 * @throws BadCalendar, NoPeople where nothing is to come
 */
export function readSessionsCalendar(text: string, now: Instant, home: Zone): PeopleTable {
  const parts = new Map(
    calendarsIn(text, 'The file', []).flatMap((calendar) =>
      calendar.parts
        .filter(({ name }) => name === 'VEVENT')
        .map((part) => [writtenIn(part, 'UID'), part] as const),
    ),
  )
  const { entries } = busyTimes(text, now, (now + AHEAD) as Instant, home)
  const rows = entries.flatMap(({ id, start, end }): string[][] => {
    const minutes = (end - start) / MINUTE
    const part = parts.get(id.slice(0, id.lastIndexOf(' ')))
    if (!part || start <= now || minutes >= LONGEST) return []
    const guest = propertiesOf(part, 'ATTENDEE').find(
      ({ value }) => value.toLowerCase() !== writtenIn(part, 'ORGANIZER').toLowerCase(),
    )
    const mail =
      guest?.value.replace(/^mailto:/i, '') ?? NAMED_MAIL.exec(writtenIn(part, 'DESCRIPTION'))?.[0] ?? ''
    const title = titleOf(part)
    return [
      [
        guest?.parameters.CN ?? title,
        mail,
        formatInstant(start),
        String(minutes),
        title,
        propertyOf(part, 'LOCATION')?.value.replaceAll(/\\([,;\\])/g, '$1') ?? '',
      ],
    ]
  })
  if (rows.length === 0) throw new NoPeople('Nothing in this calendar is still to come.')
  return { headings: HEADINGS, rows }
}
