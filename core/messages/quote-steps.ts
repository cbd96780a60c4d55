import type { Contact } from '../booking/index.ts'
import type { EnquiryNews } from '../contract/types.ts'
import { type Channel, inLanguage, type Practice, piecesOf, serviceOf, textField } from '../practice/index.ts'
import { type Instant, instant, outsideStretch, zone } from '../time/index.ts'
import { lettersIn } from './catalogue.ts'
import { firstName } from './fields.ts'
import { isStepName, type Letter, stepName, type Which } from './letter.ts'
import { languageFor, letterText, textMessage } from './lines.ts'
import { countsFrom, onTheDay, sequenceOf, textOf } from './steps.ts'
import { DOOR_TOKEN, LINK_TOKEN } from './tokens.ts'

/** A message to somebody who has a quote and has not accepted it; a draft lies before the practitioner instead. */
export type QuoteStep = Which & { at: Instant; useful: Instant; draft?: true }

/**
 * What is meant for somebody whose quote is not accepted yet: the steps of its service that hang on it, while it stands.
 * @param news everything of their enquiry; the last quote counts, until it is booked
 */
function stepsFor(practice: Practice | undefined, news: readonly EnquiryNews[]): QuoteStep[] {
  const last = news.findLastIndex(({ news: kind }) => kind === 'quoted')
  const quote = news[last]?.quote
  if (!practice || !quote || practice.messaging?.paused) return []
  if (news.slice(last).some(({ news: kind }) => kind === 'booked')) return []
  const home = zone(practice.profile.zone)
  const said = news[last]!.at
  const { quiet } = practice.messaging ?? {}
  return (sequenceOf(practice, quote.service)?.steps ?? []).flatMap((step) => {
    if (step.anchor !== 'quoted') return []
    const wanted = onTheDay(said, { ...step, before: false }, home)
    const at = quiet ? outsideStretch(wanted, quiet, home, 'on') : wanted
    return wanted < Math.max(said, countsFrom(practice, quote.service, step)) || at > quote.until
      ? []
      : [
          {
            ...{ step: stepName(step.id), anchor: last + 2, at: instant(at), useful: quote.until },
            ...(step.channel === 'text' ? { channel: step.channel } : {}),
            ...(step.draft ? { draft: true as const } : {}),
          },
        ]
  })
}

/** What goes by itself to somebody whose quote is not accepted yet. */
export const quoteSteps = (practice: Practice | undefined, news: readonly EnquiryNews[]): QuoteStep[] =>
  stepsFor(practice, news).filter(({ draft }) => !draft)

/**
 * What lies before the practitioner to be sent to them: due, of use still, and nothing has been answered since the
 * quote was sent.
 */
export const quoteDrafts = (practice: Practice, news: readonly EnquiryNews[], now: Instant): QuoteStep[] =>
  news.at(-1)?.news === 'quoted'
    ? stepsFor(practice, news).filter(({ draft, at, useful }) => draft && at <= now && now <= useful)
    : []

/** What one of them says, with its fields filled in; a token stands for its link. */
export function quoteStepWords(
  written: Practice,
  person: Pick<Contact, 'name' | 'language'>,
  service: string,
  { step }: Pick<Which, 'step'>,
): { channel: Channel; subject: string; body: string } | undefined {
  if (!isStepName(step)) return undefined
  const language = languageFor(written, person)
  const practice = inLanguage(written, language)
  const found = sequenceOf(written, service)?.steps.find(({ id }) => stepName(id) === step)
  const text = found && textOf(written, found.text, language)
  if (!text) return undefined
  const say = lettersIn(written, language)
  const name = serviceOf(practice, service)?.name ?? say('your-message')
  // Nothing is booked: only what is known all the same can be filled in.
  const bare: Readonly<Record<string, string>> = {
    name: person.name,
    firstName: firstName(person.name),
    service: name,
    link: LINK_TOKEN,
    door: DOOR_TOKEN,
    practitioner: practice.profile.name,
    phone: practice.profile.phone ?? '',
  }
  const fill = (words: string): string =>
    piecesOf(words)
      .map((piece) =>
        typeof piece === 'string' ? piece : textField(piece.field)?.bare ? (bare[piece.field] ?? '') : '',
      )
      .join('')
  return { channel: found.channel, subject: fill(text.subject ?? text.name), body: fill(text.body) }
}

/** One of them, as it goes. */
export function quoteStepLetter(
  written: Practice,
  person: Pick<Contact, 'name' | 'language'>,
  service: string,
  which: Which,
): Letter | undefined {
  const words = quoteStepWords(written, person, service, which)
  if (!words) return undefined
  const { channel, subject, body } = words
  const language = languageFor(written, person)
  const practice = inLanguage(written, language)
  const say = lettersIn(written, language)
  return channel === 'text'
    ? { to: 'client', channel, subject: '', text: textMessage({ practice }, body) }
    : { to: 'client', subject, text: letterText({ practice, say }, person.name, [body]) }
}
