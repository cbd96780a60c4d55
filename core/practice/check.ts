import { effectKind } from '../questions/effects.ts'
import { readsPrivately } from '../questions/privacy.ts'
import type { Questionnaire } from '../questions/types.ts'
import { draftFaults } from '../questions/versions.ts'
import {
  before,
  dateParts,
  dateWords,
  type Instant,
  type LocalDate,
  minutesOf,
  splitDateTime,
  zone,
} from '../time/index.ts'
import { comesTrue } from '../time/recurrence.ts'
import { checkMessages } from './check-messages.ts'
import { checkBookable } from './check-service.ts'
import { overlappingCode } from './codes.ts'
import type { PracticeFault } from './fault.ts'
import { blocksIn } from './hours-of-day.ts'
import type { Block, Hours, HouseRules, OtherWeeks, Place, Practice, Service } from './types.ts'

/** Blocks that end before they begin or overlap, said beside each. */
export function checkBlocks(blocks: readonly Block[], path: string): PracticeFault[] {
  const faults: PracticeFault[] = []
  blocks.forEach((block, index) => {
    const from = minutesOf(block.from)
    const to = minutesOf(block.to)
    const at = `${path}[${index}]`
    if (from >= to) {
      faults.push({
        path: at,
        message: `It ends at ${block.to}, not after it begins at ${block.from}. A day ends at 24:00; what comes after belongs to the next.`,
        grade: 'error',
      })
      return
    }
    const other = blocks.findIndex(
      ({ from: a, to: z }, i) => i < index && minutesOf(a) < to && from < minutesOf(z),
    )
    if (other >= 0) {
      const { from: a, to: z } = blocks[other]!
      faults.push({ path: at, message: `It overlaps with ${a} – ${z}.`, grade: 'error' })
    }
  })
  return faults
}

function checkSeasons(seasons: readonly OtherWeeks[], path: string): PracticeFault[] {
  const faults: PracticeFault[] = []
  seasons.forEach(({ from, to }, i) => {
    if (to < from)
      faults.push({
        path: `${path}[${i}].to`,
        message: 'A season can’t end before it begins.',
        grade: 'error',
      })
    const other = seasons.find((season, at) => at < i && season.from <= to && from <= season.to)
    if (other)
      faults.push({
        path: `${path}[${i}].from`,
        message: `It meets the season from ${dateWords(other.from)} to ${dateWords(other.to)}.`,
        grade: 'error',
      })
  })
  return faults
}

function checkHours(hours: Hours, path: string): PracticeFault[] {
  return [
    ...blocksIn(hours).flatMap(({ path: at, blocks }) => checkBlocks(blocks, `${path}.${at}`)),
    ...checkSeasons(hours.seasons ?? [], `${path}.seasons`),
  ]
}

function checkService(
  practice: Practice,
  service: Service,
  path: string,
  today: LocalDate | undefined,
): PracticeFault[] {
  const faults: PracticeFault[] = []
  const known = <T extends { id: string }>(list: T[], id: string): boolean =>
    list.some((item) => item.id === id)
  const unknown = (at: string, id: string, what: string): void => {
    faults.push({ path: `${path}.${at}`, message: `There is no ${what} "${id}".`, grade: 'error' })
  }
  service.places.forEach((id, i) => {
    if (!known(practice.places, id)) unknown(`places[${i}]`, id, 'place')
  })
  service.terms.forEach((id, i) => {
    if (!known(practice.terms, id)) unknown(`terms[${i}]`, id, 'terms')
  })
  service.groupDates.forEach((date, i) => {
    if (!known(practice.places, date.place)) unknown(`groupDates[${i}].place`, date.place, 'place')
  })
  if (service.questionnaire && !known(practice.questionnaires, service.questionnaire)) {
    unknown('questionnaire', service.questionnaire, 'questionnaire')
  }
  return [...faults, ...checkBookable(practice, service, path, today)]
}

/** Where the client calls there must be a number; and no postal code lies in two travel zones at once. */
function checkPlace(place: Place, path: string, { phone }: Practice['profile']): PracticeFault[] {
  const number = place.address?.trim() || phone?.trim()
  if (place.kind === 'phone' && place.whoCalls === 'client' && !number) {
    const message =
      'Clients call you there, and no number is given. Please write one here, or in your profile.'
    return [{ path: `${path}.address`, message, grade: 'error' }]
  }
  const seen = new Map<string, string>()
  return (place.travel ?? []).flatMap((zone, i) =>
    zone.postalCodes.flatMap((code): PracticeFault[] => {
      const before = seen.get(code)
      seen.set(code, zone.name)
      if (before === undefined) return []
      return [
        {
          path: `${path}.travel[${i}].postalCodes`,
          message: `“${code}” is in ${before} already; each beginning can stand in one zone only.`,
          grade: 'error',
        },
      ]
    }),
  )
}

function checkQuestionnaire(questionnaire: Questionnaire, practice: Practice, path: string): PracticeFault[] {
  const faults = draftFaults(questionnaire).map((fault): PracticeFault => {
    const question = questionnaire.questions.findIndex((question) => question.id === fault.question)
    const rule = questionnaire.rules.findIndex((rule) => rule.id === fault.rule)
    const at = question >= 0 ? `.questions[${question}]` : rule >= 0 ? `.rules[${rule}]` : ''
    return { path: `${path}${at}`, message: fault.message, grade: 'error' }
  })
  questionnaire.rules.forEach(({ effect }, i) => {
    for (const id of effectKind(effect).services?.(effect) ?? []) {
      if (practice.services.some((service) => service.id === id)) continue
      faults.push({
        path: `${path}.rules[${i}].effect`,
        message: `There is no service "${id}".`,
        grade: 'error',
      })
    }
  })
  return faults
}

/** A service whose questions decide something from private answers waits for the practitioner's word. */
function checkPrivacy(practice: Practice, service: Service, path: string): PracticeFault[] {
  const questionnaire = practice.questionnaires.find(
    (questionnaire) => questionnaire.id === service.questionnaire,
  )
  if (!questionnaire || !readsPrivately(questionnaire)) return []
  const straight = (['new', 'known'] as const).filter((kind) => service.approval[kind] === 'straight')
  return straight.map((kind) => ({
    path: `${path}.approval.${kind}`,
    message: `“${questionnaire.name}” reads private answers, which only you can see: nobody can be booked straight in.`,
    grade: 'error',
  }))
}

/** What clients are given to sign or answer must be there, and so must what goes out with a service. */
function checkPreparations(practice: Practice): PracticeFault[] {
  const { preparations = [], terms, questionnaires, services } = practice
  const faults: PracticeFault[] = []
  const lacks = (path: string, message: string): void => {
    faults.push({ path, message, grade: 'error' })
  }
  preparations.forEach((one, i) => {
    const at = `preparations[${i}]`
    if (one.is === 'sign' && !terms.some(({ id }) => id === one.terms))
      lacks(`${at}.terms`, `“${one.name}” is to be signed, and its text is gone. Please choose another.`)
    if (one.is === 'answer' && !questionnaires.some(({ id }) => id === one.questionnaire))
      lacks(`${at}.questionnaire`, `“${one.name}” asks questions that are gone. Please choose others.`)
  })
  ;(practice.paths ?? []).forEach((path, i) => {
    path.stations.forEach((station, j) => {
      const at = `paths[${i}].stations[${j}]`
      if (station.does === 'prepare' && !preparations.some(({ id }) => id === station.preparation))
        lacks(`${at}.preparation`, `“${path.name}” has something to prepare that is gone.`)
      if (station.does === 'sessions' && !services.some(({ id }) => id === station.service))
        lacks(`${at}.service`, `“${path.name}” has sessions of a service that is gone.`)
      if (station.does === 'sessions' && (station.most ?? Number.MAX_VALUE) < (station.least ?? 0))
        lacks(
          `${at}.most`,
          'The greatest distance is smaller than the least, so nothing can ever be planned.',
        )
    })
  })
  services.forEach(({ prepares = [] }, i) => {
    prepares.forEach((id, j) => {
      if (!preparations.some((one) => one.id === id))
        lacks(`services[${i}].prepares[${j}]`, `There is no preparation "${id}".`)
    })
  })
  return faults
}

function checkCodes(practice: Practice, today: LocalDate | undefined): PracticeFault[] {
  const codes = practice.codes ?? []
  return codes.flatMap((code, i): PracticeFault[] => {
    const at = `codes[${i}]`
    if (overlappingCode(codes, i) !== undefined) {
      const message = `“${code.code}” is there twice for the same service and days; each can stand once.`
      return [{ path: `${at}.code`, message, grade: 'error' }]
    }
    if (code.from && code.to && code.from > code.to)
      return [{ path: `${at}.to`, message: 'Its last day comes before its first.', grade: 'error' }]
    if (today && code.to && code.to < today)
      return [{ path: `${at}.to`, message: `It ended on ${code.to}.`, grade: 'warning' }]
    return []
  })
}

/**
 * Cancelling later never costs less than cancelling earlier. How long before the start a tier ends is taken by an
 * ordinary day, without a change of clocks.
 */
function checkTiers({ cancel, cancelAfter }: HouseRules, of = 'houseRules'): PracticeFault[] {
  const noon = Date.UTC(2027, 0, 4, 12) as Instant
  const tiers = cancel
    .map(({ until, share }, i) => ({ share, until: before(noon, until, zone('UTC')), i }))
    .sort((a, b) => a.until - b.until)
  return tiers.flatMap(({ share, until, i }, n): PracticeFault[] => {
    const next = tiers[n + 1]
    const path = `${of}.cancel[${i}]`
    if (next?.until === until)
      return [{ path, message: 'Two shares end at the same moment; only one can hold.', grade: 'error' }]
    const later = next?.share ?? cancelAfter
    if (share <= later) return []
    const message = `Until then ${share} % are due, and ${later} % afterwards: cancelling later can't cost less than earlier.`
    return [{ path: `${path}.share`, message, grade: 'error' }]
  })
}

/**
 * Everything wrong in a practice whose data has the right shape. Empty when all is well.
 * @param today with it, what has passed is told, too
 */
export function checkPractice(practice: Practice, today?: LocalDate): PracticeFault[] {
  return [
    ...checkHours(practice.hours, 'hours'),
    ...practice.places.flatMap((place, i) =>
      place.hours ? checkHours(place.hours, `places[${i}].hours`) : [],
    ),
    ...practice.away.flatMap((away, i): PracticeFault[] => {
      const from = splitDateTime(away.from)
      const to = splitDateTime(away.to)
      const fault = (message: string): PracticeFault[] => [{ path: `away[${i}]`, message, grade: 'error' }]
      if (from.day * 1440 + from.minutes >= to.day * 1440 + to.minutes)
        return fault('It ends before it begins.')
      return away.repeat && !comesTrue(away.repeat, dateParts(away.from))
        ? fault('It is said to come again, and never does. Please choose how it repeats once more.')
        : []
    }),
    ...practice.places.flatMap((place, i) => checkPlace(place, `places[${i}]`, practice.profile)),
    ...practice.services.flatMap((service, i) => checkService(practice, service, `services[${i}]`, today)),
    ...practice.services.flatMap((service, i) => checkPrivacy(practice, service, `services[${i}]`)),
    ...checkPreparations(practice),
    ...checkCodes(practice, today),
    ...checkTiers(practice.houseRules),
    ...checkMessages(practice),
    ...practice.services.flatMap(({ houseRules }, i) =>
      houseRules ? checkTiers(houseRules, `services[${i}].houseRules`) : [],
    ),
    ...practice.questionnaires.flatMap((questionnaire, i) =>
      checkQuestionnaire(questionnaire, practice, `questionnaires[${i}]`),
    ),
    ...practice.terms.flatMap((terms, i): PracticeFault[] =>
      terms.versions.every((version, n) => n === 0 || version.number > terms.versions[n - 1]!.number)
        ? []
        : [
            {
              path: `terms[${i}].versions`,
              message: 'The numbers of the versions must rise.',
              grade: 'error',
            },
          ],
    ),
  ]
}
