import { money } from '@acolhida/core/money'
import type { Practice, Service } from '@acolhida/core/practice'
import { dateWords, durationWords, type Instant, type LocalDate } from '@acolhida/core/time'
import { counted, currencyOf } from '../parts/words.ts'
import { FILLING, fillSaid } from '../waiting/fill-settings.ts'
import type { SaidSentence, SaidValue, SentenceGroup } from './said-sentence.ts'
import { AFTERWARDS, BEFORE, MARKS, SHOWN, WHAT } from './what.ts'
import { whenFields } from './when.ts'
import { APPROVAL, whomFields } from './whom.ts'

/** All that is set of a service, as it is said. */
export function sentencesOf(
  practice: Practice,
  service: Service,
  today: LocalDate,
  now: Instant,
): SentenceGroup[] {
  const when = whenFields(today)
  const whom = whomFields(practice)
  const all = [...WHAT, ...SHOWN, ...AFTERWARDS, ...BEFORE, ...when, ...whom, ...FILLING]
  const value = (say: string, ...labels: string[]): SaidValue => ({
    say,
    of: labels.map((label) => {
      const found = all.find((setting) => setting.label === label)
      if (!found) throw new Error(`There is no setting “${label}” of a service.`)
      return found
    }),
  })
  return [
    { title: 'What it is', sentences: whatSaid(practice, service, value) },
    { title: 'When', sentences: whenSaid(service, value) },
    { title: 'For whom', sentences: whomSaid(practice, service, value) },
    { title: 'Waiting for a time', sentences: fillSaid(practice, service, now, value) },
  ]
}

type Value = (say: string, ...labels: string[]) => SaidValue

function whatSaid(practice: Practice, service: Service, value: Value): SaidSentence[] {
  const currency = currencyOf(practice.profile.currency)
  const { price, least } = service
  const mark = MARKS.find((mark) => mark.value === service.colour)?.name.toLowerCase() ?? ''
  return [
    [
      'It is called ',
      value(service.name || 'nothing yet', 'Name'),
      ' and stands under ',
      value(service.section ? `“${service.section}”` : 'no heading', 'Heading at the door'),
      '; its mark is ',
      value(mark, 'Mark'),
      '.',
    ],
    [value(service.description ? `“${service.description}”` : 'No description yet', 'Description')],
    [
      'Whoever has booked it is shown ',
      value(
        service.afterwards?.text ? `“${service.afterwards.text}”` : 'no words of yours',
        'Words for whoever has booked it',
      ),
      ' and ',
      value(service.afterwards?.address ?? 'no page', 'A page or document for them'),
      '.',
    ],
    [
      'Before a session there is ',
      value(
        service.before ? `“${service.before.text || service.before.address}”` : 'nothing to read or do',
        'Something to read or do before',
        'A page or document for that',
        'The client ticks it as done on their page',
        'To be done at least so long before',
      ),
      '.',
    ],
    [
      'It takes ',
      value(`${service.minutes} minutes`, 'Length'),
      ', ',
      value(
        service.leastMinutes ? `never less than ${service.leastMinutes}` : 'with no least length',
        'Never shorter than',
      ),
      ', rounded up to ',
      value(`${service.lengthStep} minutes`, 'Rounded up to'),
      '.',
    ],
    price.kind === 'free'
      ? ['It is ', value('free of charge', 'What it costs', 'Price'), '.']
      : [
          'It costs ',
          value(
            price.kind === 'hourly'
              ? `${money(price.rate, currency)} an hour`
              : money(price.amount, currency),
            'What it costs',
            'Price',
          ),
          ', ',
          value(
            price.whole === undefined
              ? 'at any start'
              : `${money(price.whole, currency)} where the day stays whole`,
            'Lower price',
          ),
          ', ',
          value(
            price.least === undefined
              ? 'with no least price'
              : `never less than ${money(price.least, currency)}`,
            'Never less than',
          ),
          '.',
        ],
    [
      'Before the questions, the price is ',
      value(service.priceHidden ? 'not told' : 'told', 'Show the price before the questions'),
      ' and the length is ',
      value(service.lengthHidden ? 'not told' : 'told', 'Show the length before the questions'),
      '.',
    ],
    service.seats === 1
      ? ['It is for ', value('one person', 'Seats'), ' at a time.']
      : [
          'It is for a group of ',
          value(counted(service.seats, 'person', 'people'), 'Seats'),
          ', ',
          value(service.groupAt === 'dates' ? 'on dates I set' : 'at any opening', 'A group takes place'),
          ...(service.groupAt === 'dates'
            ? [
                ', ',
                value(
                  least
                    ? `called off with fewer than ${least.people}, known ${durationWords(least.by)} before`
                    : 'with however many come',
                  'At least',
                  'Known',
                ),
              ]
            : []),
          '.',
        ],
    ['It is ', value(service.on ? 'at the door' : 'not at the door', 'At the door'), '.'],
  ]
}

function reachSaid({ reach }: Service): string {
  switch (reach.kind) {
    case 'days':
      return `up to ${counted(reach.days, 'day', 'days')} ahead`
    case 'working-days':
      return `up to ${counted(reach.days, 'working day', 'working days')} ahead`
    case 'until':
      return `until ${dateWords(reach.date)}`
    case 'months':
      return `a month at a time, from day ${reach.opensOn} of the month before`
  }
}

function seasonSaid({ season }: Service): string {
  if (!season) return 'all year'
  const from = season.from ? `from ${dateWords(season.from)}` : ''
  const to = season.to ? `until ${dateWords(season.to)}` : ''
  const when = [from, to].filter(Boolean).join(' ') || 'always'
  return season.on ? `only ${when}` : `but not ${when}`
}

function whenSaid(service: Service, value: Value): SaidSentence[] {
  const { starts, earliestStart, latestStart, perDay, perWeek, showAtMost } = service
  return [
    [
      value(
        starts.kind === 'every'
          ? `A start every ${counted(starts.minutes, 'minute', 'minutes')}`
          : `Starts at ${starts.times.join(', ')}`,
        'Starts',
        'A start every',
        'Times of day',
      ),
      ', not before ',
      value(earliestStart ?? 'my hours begin', 'Not before'),
      ' and not after ',
      value(latestStart ?? 'they end', 'Not after'),
      '.',
    ],
    [
      'It can be booked ',
      value(reachSaid(service), 'How far ahead', 'Days ahead', 'Last day', 'A month opens on day'),
      ', at least ',
      value(durationWords(service.notice), 'Notice'),
      ' before.',
    ],
    [
      'Kept clear: ',
      value(counted(service.clearBefore, 'minute', 'minutes'), 'Kept clear before'),
      ' before it and ',
      value(counted(service.clearAfter, 'minute', 'minutes'), 'Kept clear after'),
      ' after it, ',
      value(
        service.clearInsideHours ? 'inside my hours' : 'also beyond my hours',
        'Clear time lies inside my hours, too',
      ),
      '.',
    ],
    [
      'At most ',
      value(perDay === undefined ? 'any number' : String(perDay), 'At most a day'),
      ' a day and ',
      value(perWeek === undefined ? 'any number' : String(perWeek), 'At most a week'),
      ' a week.',
    ],
    [
      'Clients are shown ',
      value(
        showAtMost === undefined ? 'all open times' : `${showAtMost} well-chosen times`,
        'Times shown at most',
      ),
      ', ',
      value(
        service.tidy ? 'and none that leaves time too short to use' : 'whatever time they leave',
        'Offer only starts that leave usable time',
      ),
      '.',
    ],
    ['It is offered ', value(seasonSaid(service), 'Season', 'From', 'Until'), '.'],
  ]
}

const asked = (approval: Service['approval']['new']): string =>
  APPROVAL.find(({ value }) => value === approval)?.said ?? approval

/** The word for how far one has come that something sets by itself. */
const word = (set: string | undefined): string => (set ? `“${set}”` : 'what I called them before')

function whomSaid(practice: Practice, service: Service, value: Value): SaidSentence[] {
  const questionnaire = practice.questionnaires.find(({ id }) => id === service.questionnaire)
  return [
    [
      value(
        {
          everyone: 'Everyone',
          link: 'Whoever has its link',
          invited: 'Only people I have invited',
        }[service.bookableBy],
        'Who may book it',
      ),
      ' may book it.',
    ],
    [
      'New people ',
      value(asked(service.approval.new), 'New people'),
      ', people I know ',
      value(asked(service.approval.known), 'People you know'),
      '.',
    ],
    [
      'They answer ',
      value(questionnaire ? `“${questionnaire.name}”` : 'no questions', 'Questions'),
      ' first.',
    ],
    [
      'Once it is booked I call them ',
      value(word(service.moves?.booked), 'Once it is booked, the word for them is'),
      ', once it has taken place ',
      value(word(service.moves?.attended), 'Once it has taken place'),
      '.',
    ],
  ]
}
