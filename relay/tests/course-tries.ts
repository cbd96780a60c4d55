import { courseSubject } from '@acolhida/core/agenda'
import { invoicesInForce } from '@acolhida/core/booking'
import type { DeskCourseDoes, StationDoes } from '@acolhida/core/contract'
import {
  askTillForPath,
  bookPath,
  type Does,
  deskCourse,
  doStation,
  forgetPeople,
  keepHalf,
  openCourses,
  payableForPath,
  planPath,
  tillSays,
} from '@acolhida/core/house'
import { mailHash } from '@acolhida/core/people'
import type { Path, Preparation } from '@acolhida/core/practice'
import { type Course, courseAt, invoiceable, notInvoiced, type Station } from '@acolhida/core/preparing'
import { sha256Hex, versionFingerprint } from '@acolhida/core/terms'
import { DAY, dateAt, duration, shift, zone } from '@acolhida/core/time'
import type { Lent } from './line-tries.ts'
import type { Try } from './tries.ts'

export type CourseTry = Extract<Try, { who: 'course' }>

/** What there is to prepare in histories, one of each kind; the first two go out with every booking. */
export const PREPARATIONS: Preparation[] = [
  {
    ...{ id: 'tick', is: 'tick', name: 'Tick', text: 'Practise.', once: true },
    due: { from: 'end', by: duration('P2D') },
  },
  { id: 'sign', is: 'sign', name: 'Sign', terms: 't', due: { from: 'start', by: duration('P1D') } },
  { id: 'read', is: 'read', name: 'Read', text: [], due: { from: 'given', by: duration('P1D') } },
  {
    ...{ id: 'answer', is: 'answer', name: 'Answer', questionnaire: 'q' },
    due: { from: 'given', by: duration('P3D') },
  },
]
/** Something to read, a long session and two short ones, paid in two parts. */
export const PATH: Path = {
  ...{ id: 'path', name: 'Path', text: '', price: 10_001 },
  stations: [
    { id: 'pay', does: 'pay', parts: 2, after: duration('P0D'), every: duration('P10D') },
    { id: 'read', does: 'prepare', preparation: 'read' },
    { id: 'long', does: 'sessions', service: 'a', minutes: 60, many: 1 },
    { id: 'short', does: 'sessions', service: 'a', minutes: 60, many: 2 },
  ],
}

const personOf = (which: number) => ({
  ...{ name: 'C', email: `c${which % 3}@example.org`, zone: 'Europe/Lisbon' },
})

/** What somebody was given, or the practitioner for them. */
export function tryCourse(lent: Lent, { does, nth, which }: CourseTry): unknown {
  const { keeper, now, call, name } = lent
  const { house } = keeper
  const { practice, salt } = house.pack!
  if (does === 'give' || does === 'give-path') {
    const preparations = PREPARATIONS.filter((_, i) => (which + i) % 3 > 0).map(({ id }) => id)
    const command: DeskCourseDoes = {
      ...{ do: 'give', person: personOf(nth), preparations, silent: which % 2 === 0 },
      ...(does === 'give-path' ? { preparations: [], path: PATH.id } : {}),
    }
    return call(deskCourse, { course: name(), command })
  }
  if (does === 'forget') {
    const hashes = [mailHash(personOf(nth).email, salt)]
    return call(forgetPeople, { people: [{ hashes, before: shift(now, 1) }] })
  }
  const fits = (course: Course): boolean => {
    const booking = course.given.booking === undefined ? undefined : house.booking(course.given.booking)
    if (does === 'take-back') return course.unsettled !== undefined && now <= course.unsettled.until
    if (courseAt(practice, course, booking, now).over) return false
    if (does === 'half' || does === 'answer') return course.given.stations.some(({ is }) => is === 'answer')
    if (does === 'correct-invoice') return invoicesInForce(course.invoices ?? []).length > 0
    if (does === 'resume') return course.paused !== undefined
    if (does === 'till-tells') return course.till !== undefined
    return course.given.path !== undefined || !OF_PATHS.has(does)
  }
  // What is put right was made.
  const payable = [...house.courses()].find((one) => notInvoiced(one).length > 0)
  if (does === 'correct-invoice' && payable && ![...house.courses()].some(fits))
    call(deskCourse, { course: payable.id, command: { do: 'invoice', parts: [notInvoiced(payable)[0]!.id] } })
  // What the till tells of, it was asked for.
  const owing = [...house.courses()].find((one) => payableForPath(practice, one, now) > 0)
  if (does === 'till-tells' && owing && ![...house.courses()].some(fits))
    call(
      askTillForPath,
      { hash: mailed(lent, owing.id), course: owing.id, amount: payableForPath(practice, owing, now) },
      false,
    )
  // Most take back what they have done just now.
  if (does === 'take-back' && which % 3 > 0 && ![...house.courses()].some(fits)) {
    const preparations = ['read']
    call(deskCourse, { course: name(), command: { do: 'give', person: personOf(nth), preparations } })
  }
  const all = [...house.courses()].sort((a, b) => (a.id < b.id ? -1 : 1))
  const fit = nth % 7 === 0 ? all : all.filter(fits)
  const course = (fit.length > 0 ? fit : all)[nth % Math.max(1, fit.length || all.length)]
  if (!course) return 'nobody'
  const station = course.given.stations[which % Math.max(1, course.given.stations.length)]
  const command = ofDesk(course, station, which)[does as DeskCourseDoes['do']]
  if (command) return call(deskCourse, { course: course.id, command })
  const hash = mailed(lent, course.id)
  if (does === 'at-till') {
    const amount = payableForPath(practice, course, now) + Number(which % 7 === 0)
    return call(askTillForPath, { hash, course: course.id, amount }, false)
  }
  if (does === 'till-tells') {
    const asked = course.till?.at(-1)
    if (!asked) return 'nothing'
    const { payment, amount } = asked
    const says = (['paid', 'paid', 'failed', 'over'] as const)[which % 4]!
    const of = { payment, booking: course.id, amount, currency: course.given.path!.currency }
    return call(tillSays, { ...of, message: `m${which}`, says, text: '' }, false)
  }
  const place = 'video'
  switch (does) {
    case 'open':
      return call(openCourses, { hash }, false)
    case 'half':
    case 'answer': {
      const asked = course.given.stations.find(({ is }) => is === 'answer') ?? station
      if (!asked) return 'nothing'
      const of = { course: course.id, station: asked.id }
      const n = (house.half(course.id, asked.id)?.n ?? 0) + Number(which % 5 === 0)
      if (does === 'half')
        return call(keepHalf, { hash, ...of, n, sealed: `half..${which}`, answered: which % 2, of: 1 }, false)
      const answers = { q: which % 6 === 0 ? 'in clear' : { sealed: `head..${which}.of.it` } } as never
      return call(doStation, { hash, ...of, does: { do: 'answer', answers, answered: 1, of: 1 } })
    }
    case 'client': {
      if (!station) return 'nothing'
      const agreed = practice.terms.map(({ id, versions }) => ({
        ...{ terms: id, number: 1, fingerprint: versionFingerprint(id, versions[0]!) },
      }))
      const said: StationDoes =
        station.is === 'sign'
          ? { do: 'sign', name: 'C', agreed: which % 5 === 0 ? [] : agreed }
          : { do: which % 4 === 0 ? 'undone' : 'done' }
      return call(doStation, { hash, course: course.id, station: station.id, does: said })
    }
    default: {
      const first = dateAt(zone('Europe/Lisbon'), shift(now, (1 + (which % 4)) * DAY))
      const wish = { course: course.id, place, rhythm: 'week', first, time: '10:00' } as const
      const planned = call(planPath, { hash, ...wish } as never, false) as {
        sessions?: { session: string; start?: number }[]
      }
      const sessions = (planned.sessions ?? []).filter(({ start }) => start !== undefined)
      if (sessions.length === 0) return planned
      return call(bookPath, {
        ...{ hash, course: course.id, place },
        sessions: sessions.map(({ session, start }) => ({ session, start })),
      } as never)
    }
  }
}

const OF_PATHS = new Set<string>([
  'at-till',
  'invoice',
  'correct-invoice',
  'pay',
  'pause',
  'resume',
  'extend',
  'book',
])

/** What the practitioner does with it. */
const ofDesk = (
  course: Course,
  station: Station | undefined,
  which: number,
): Partial<Record<string, DeskCourseDoes>> => ({
  chase: { do: 'chase', text: which % 2 === 0 ? '' : 'Please.' },
  done: { do: 'done', station: station?.id ?? 'none' },
  undone: { do: 'undone', station: station?.id ?? 'none' },
  end: { do: 'end', ...(which % 4 === 0 ? { back: 1 + which } : {}) },
  pay: { do: 'pay', amount: which % 5 === 0 ? -10 : 1_000 + which, way: 'transfer' },
  invoice: {
    do: 'invoice',
    parts: (which % 5 === 0 ? invoiceable(course) : notInvoiced(course).slice(0, 1 + (which % 2))).map(
      ({ id }) => id,
    ),
  },
  'correct-invoice': {
    ...{ do: 'correct-invoice', text: 'As it was wrong.' },
    number:
      (which % 4 === 0 ? course.invoices : invoicesInForce(course.invoices ?? []))?.[0]?.number ?? 'none',
  },
  pause: { do: 'pause', text: 'Away.' },
  resume: { do: 'resume' },
  extend: {
    ...{ do: 'extend', many: 1 + (which % 2), price: 1_000 },
    like: course.given.path?.sessions[0]?.id ?? 'none',
  },
  'take-back': { do: 'take-back', of: course.unsettled?.seq ?? course.seq },
})

/** A link as a mail brings it. */
function mailed({ call, secretOf }: Lent, course: string): string {
  const mint: Does<undefined, string> = (work) => {
    const id = work.ids()
    work.changes.push({ type: 'link', link: { id, subject: courseSubject(course), proves: true } })
    return id
  }
  return sha256Hex(secretOf(String(call(mint, undefined, false))))
}
