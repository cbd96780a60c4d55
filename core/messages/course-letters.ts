import type { Booking } from '../booking/index.ts'
import { clientClocks, inLanguage, type Practice, preparationOf } from '../practice/index.ts'
import { type Course, courseAt, type StationState, stillToDo } from '../preparing/index.ts'
import { type Instant, moment, zone, zonePlace } from '../time/index.ts'
import { lettersIn } from './catalogue.ts'
import type { Letter, Which } from './letter.ts'
import { languageFor, letterText, PAGE } from './lines.ts'

/**
 * A message about what somebody was given to do, from how things stand when it goes; nothing where nothing is left.
 * @param booking the one it goes with
 */
export function courseLetter(
  written: Practice,
  course: Course,
  booking: Booking | undefined,
  { step }: Pick<Which, 'step'>,
  now: Instant,
): Letter | undefined {
  const { person } = course.given
  const left = stillToDo(courseAt(written, course, booking, now))
  if (left.length === 0) return undefined
  const language = languageFor(written, person)
  const say = lettersIn(written, language)
  const practice = inLanguage(written, language)
  const clock = booking ? clientClocks(practice, booking.place, person.zone).first : zone(person.zone)
  const at = (due: Instant): string =>
    say('moment', { moment: moment(due, clock, language), place: zonePlace(clock.name, language) })
  const named = ({ station }: StationState): string =>
    preparationOf(practice, station.preparation)?.name ?? station.name
  const line = (state: StationState): string => {
    const { due, station, progress } = state
    const said = { name: named(state), minutes: station.minutes ?? 0 }
    const begun = progress.filled && progress.filled.answered > 0 ? progress.filled : undefined
    return [
      say('prepare.line', said),
      begun ? say('prepare.begun', { answered: begun.answered, of: begun.of }) : '',
      due === undefined ? '' : say('prepare.by', { due: at(due) }),
    ]
      .filter(Boolean)
      .join(' · ')
  }
  const what = { count: left.length, more: left.length - 1, first: named(left[0]!) }
  const list = left.map(line).join('\n')
  const page = say('prepare.page', PAGE)
  const text = course.tells?.text ?? ''
  const mail = (subject: string, head: string, said = ''): Letter => ({
    to: 'client',
    subject,
    text: letterText({ practice, say }, person.name, [said, head, list, page]),
  })
  switch (step) {
    case 'to-prepare':
      return mail(say('to-prepare.subject', what), say('to-prepare', what), text)
    case 'prepare-chased':
      return mail(say('prepare-chased.subject', what), say('prepare-chased', what), text)
    case 'prepare-soon':
      return mail(say('prepare-soon.subject', what), say('prepare-soon', what))
    default:
      return undefined
  }
}
