import type { Currency } from '../money/index.ts'
import type { Service } from '../practice/types.ts'
import { leavesOf } from './comparisons.ts'
import { type Asking, newcomer } from './conditions.ts'
import { Formulas } from './formula.ts'
import { nearTo } from './limit.ts'
import { TooMany } from './options.ts'
import { floorOf, readAnswers } from './reading.ts'
import type { AnswerValue, Condition, Effect, Outcome, Question, Questionnaire } from './types.ts'
import { isUnfinished } from './versions.ts'
import { answersOn, beginning, endOfWay, ready, type WayState, walk } from './ways.ts'

/** Something a path check has found, and where. */
export interface Finding {
  kind:
    | 'never-asked'
    | 'hidden-required'
    | 'contradiction'
    | 'never-fires'
    | 'no-effect'
    | 'closes-everybody'
    | 'known-already'
    | 'too-short'
    | 'without-end'
    | 'other-price'
    | 'unproven'
  /** An error breaks a way; a note is worth a thought. */
  grade: 'error' | 'note'
  question?: string
  choices?: string[]
  rule?: string
  message: string
}

/** What is proven of all ways through a questionnaire. */
export interface PathCheck {
  findings: Finding[]
  /** Whether every way has been looked at. */
  proven: boolean
  /** Ways of a newcomer by where they end, as shares of one. */
  shares: Record<Outcome | 'enquiry', number>
  /** For each question the share of a newcomer's ways on which it is asked. */
  asked: number[]
  /** How many ways there are for a newcomer; beyond counting for a machine it is an estimate. */
  ways: number
  /** States walked to prove it. */
  states: number
  /** Questions asked on the shortest and the longest way. */
  shortest: number
  longest: number
  /** Minutes and minor units; infinite where an answer has no greatest value, and what it is multiplied with none either. */
  minutes: { least: number; most: number }
  price: { least: number; most: number }
  /** Answers that the door would take and that are read as each outcome, as an example. */
  examples: Partial<Record<Outcome | 'enquiry', Record<string, AnswerValue>>>
}

/** More states at one question than are walked. */
const MOST_STATES = 60_000

/** How far a check is, and whether it is to go on. */
export type Progress = (question: number, of: number, states: number) => boolean

/**
 * Proves a questionnaire for a service: every way through it is walked, ways that agree in all that still matters
 * together. Where that would be too much it says so, and what it could not prove.
 * @param onProgress told after each question; false stops it
 * @param currency with it, prices in the questions are compared with the service's
 * @returns nothing when it was stopped
 */
export function checkPaths(
  questionnaire: Questionnaire,
  service: Service,
  onProgress: Progress = () => true,
  currency?: Currency,
): PathCheck | undefined {
  const findings = [
    ...contradictions(questionnaire),
    ...knownAlready(questionnaire),
    ...otherPrices(questionnaire, service, currency),
  ]
  try {
    return prove(questionnaire, service, findings, onProgress)
  } catch (error) {
    if (!(error instanceof TooMany)) throw error
    const message =
      'It has more ways of answering than can be told apart; what follows from it is not proven.'
    return unproven([...findings, { kind: 'unproven', grade: 'note', question: error.message, message }])
  }
}

const unproven = (findings: Finding[]): PathCheck => ({
  findings,
  proven: false,
  shares: { fits: 0, look: 0, closed: 0, enquiry: 0 },
  asked: [],
  ways: 0,
  states: 0,
  shortest: 0,
  longest: 0,
  minutes: { least: 0, most: 0 },
  price: { least: 0, most: 0 },
  examples: {},
})

function prove(
  questionnaire: Questionnaire,
  service: Service,
  findings: Finding[],
  onProgress: Progress,
): PathCheck | undefined {
  const r = ready(questionnaire, service)
  const asked = new Set<number>()
  const fired = new Set<number>()
  let states = 0
  let tooMany: number | undefined
  let stopped = false
  const level = (index: number, count: number): boolean => {
    states += count
    if (count > MOST_STATES) {
      tooMany = index
      return false
    }
    stopped = !onProgress(index + 1, r.questions.length, states)
    return !stopped
  }
  const watch = {
    asked: (index: number) => asked.add(index),
    fired: (rule: number) => fired.add(rule),
    level,
  }
  const ends = walk(r, [beginning(r, newcomer, true)], watch)
  // What a newcomer never meets, others may: they are walked only for that.
  const others = ends && people(questionnaire).map((person) => beginning(r, person))
  const rest = others && (others.length > 0 ? walk(r, others, watch) : [])
  if (stopped) return undefined
  if (!ends || !rest) {
    const question = r.questions[tooMany ?? 0]?.question.id ?? ''
    const message = 'From here on there are more ways than could be walked; what follows is not proven.'
    return unproven([...findings, { kind: 'unproven', grade: 'note', question, message }])
  }
  const summed = summary(r, ends)
  findings.push(
    ...neverAsked(questionnaire, asked),
    ...neverFires(questionnaire, fired),
    ...withoutEffect(questionnaire),
  )
  const all = [...ends, ...rest].map((state) => endOfWay(r, state))
  if (all.every((end) => end.outcome === 'closed')) {
    findings.push({
      kind: 'closes-everybody',
      grade: 'error',
      message: 'Whatever one answers, the way ends closed: nobody can ever book with these questions.',
    })
  }
  findings.push(...tooShort(r, [...ends, ...rest]), ...withoutEnd(r, summed))
  const between = betweenEnds(r)
  findings.push(...between)
  return { findings, proven: between.length === 0, states, ...summed }
}

/** Ways on which the answers take off more than a session has: it is held at one step of its length. */
function tooShort({ service }: ReturnType<typeof ready>, states: readonly WayState[]): Finding[] {
  const least = states.reduce(
    (found, state) => Math.min(found, nearTo(state.minutes)),
    Number.POSITIVE_INFINITY,
  )
  if (least >= service.lengthStep) return []
  const come = Number.isFinite(least) ? `come to ${least} minutes` : 'take off more and more, without end'
  return [
    {
      kind: 'too-short',
      grade: 'error',
      message: `On some way the answers ${come}. A session is never shorter than ${floorOf(service)}, so the rules take off more than there is.`,
    },
  ]
}

/** The questions whose answers have no greatest value, where length or price grows with them. */
function withoutEnd(
  r: ReturnType<typeof ready>,
  { minutes, price }: Pick<PathCheck, 'minutes' | 'price'>,
): Finding[] {
  const grows = [
    ...(Number.isFinite(minutes.most) ? [] : ['length']),
    ...(Number.isFinite(price.most) ? [] : ['price']),
  ]
  if (grows.length === 0) return []
  return r.questions.flatMap(({ question, options }): Finding[] =>
    options.some(({ quantities }) => Object.values(quantities).some((many) => !Number.isFinite(nearTo(many))))
      ? [
          {
            kind: 'without-end',
            grade: 'note',
            question: question.id,
            message: `Its answer has no greatest value, and with it the ${grows.join(' and the ')} grows without end. Say what it is at most.`,
          },
        ]
      : [],
  )
}

/**
 * Questions of whose answers only the ends of stretches were walked, where what lies between may come to something
 * else: a price that neither rises nor falls throughout, or passes a value above which one looks.
 */
function betweenEnds(r: ReturnType<typeof ready>): Finding[] {
  const { questions, rules, questionnaire, service } = r
  const times = (id: string, does: (effect: Effect) => boolean): boolean =>
    rules.some(({ rule: { effect } }) => 'times' in effect && effect.times === id && does(effect))
  const weighed = questionnaire.lookAbove !== undefined || questionnaire.enquiryAbove !== undefined
  return questions.flatMap(({ question: { id, kind }, options }): Finding[] => {
    if (kind !== 'number' && kind !== 'scale') return []
    if (!options.some((option) => option.weight % 1 !== 0)) return []
    const dearer = times(id, (effect) => effect.do === 'item')
    const hourly = service.price.kind === 'hourly'
    const longer = hourly && times(id, (effect) => effect.do === 'minutes')
    const shorter = hourly && times(id, (effect) => effect.do === 'minutes' && effect.minutes < 0)
    const message =
      shorter && dearer
        ? 'Its answer makes the session both shorter and dearer; the least and the greatest price are not proven.'
        : weighed && (dearer || longer)
          ? 'The price grows with its answer past a value above which something else follows; which ways end so is not proven.'
          : undefined
    return message ? [{ kind: 'unproven', grade: 'note', question: id, message }] : []
  })
}

/** The kinds of people whose questions or rules may differ from a newcomer's. */
function people(questionnaire: Questionnaire): Asking[] {
  const conditions = [
    ...questionnaire.questions.flatMap((question) => (question.when ? [question.when] : [])),
    ...questionnaire.rules.map((rule) => rule.when),
  ]
  const parts = conditions.flatMap(leavesOf)
  const tags = [...new Set(parts.flatMap((part) => ('tag' in part ? [part.tag] : [])))].slice(0, 6)
  const attempts = [0, ...parts.flatMap((part) => ('attempts' in part ? [part.attempts] : []))]
  const looks = parts.some((part) => 'person' in part)
  const standings = looks ? (['new', 'known'] as const) : (['new'] as const)
  const invitations = looks ? [false, true] : [false]
  const found: Asking[] = []
  for (const standing of standings) {
    for (const invited of invitations) {
      for (const tried of new Set(attempts)) {
        for (let mask = 0; mask < 1 << tags.length; mask++) {
          const own = tags.filter((_, i) => mask & (1 << i))
          if (standing === 'new' && !invited && tried === 0 && own.length === 0) continue
          found.push({ standing, invited, attempts: tried, tags: own })
        }
      }
    }
  }
  return found
}

function summary(
  r: ReturnType<typeof ready>,
  ends: readonly WayState[],
): Omit<PathCheck, 'findings' | 'proven' | 'states'> {
  const ways = ends.reduce((sum, state) => sum + state.ways, 0)
  const shares = { fits: 0, look: 0, closed: 0, enquiry: 0 }
  const examples: PathCheck['examples'] = {}
  const minutes = { least: Number.POSITIVE_INFINITY, most: 0 }
  const price = { least: Number.POSITIVE_INFINITY, most: 0 }
  for (const state of ends) {
    const end = endOfWay(r, state)
    const name = end.outcome !== 'closed' && end.enquiry ? 'enquiry' : end.outcome
    shares[name] += state.ways / ways
    const example = examples[name] ?? exampleOf(r, state, name)
    if (example) examples[name] = example
    // Whoever is closed is offered nothing: their length and price are nobody's.
    if (end.outcome === 'closed') continue
    minutes.least = Math.min(minutes.least, end.minutes)
    minutes.most = Math.max(minutes.most, end.minutes)
    price.least = Math.min(price.least, end.least)
    price.most = Math.max(price.most, end.most)
  }
  const none = minutes.most === 0 && !Number.isFinite(minutes.least)
  return {
    ways,
    asked: r.questions.map((_, i) => ends.reduce((sum, state) => sum + (state.met?.[i] ?? 0), 0) / ways),
    shares,
    examples,
    shortest: Math.min(...ends.map((state) => state.shortest)),
    longest: Math.max(...ends.map((state) => state.longest)),
    minutes: none ? { least: 0, most: 0 } : minutes,
    price: none ? { least: 0, most: 0 } : price,
  }
}

/** The answers of a way, where they end as it does: those at the end of a stretch may only come near. */
function exampleOf(
  { questionnaire, service }: ReturnType<typeof ready>,
  state: WayState,
  name: Outcome | 'enquiry',
): Record<string, AnswerValue> | undefined {
  const answers = answersOn(state.trail)
  const { outcome, enquiryInstead } = readAnswers(service, questionnaire, answers, newcomer)
  return (outcome !== 'closed' && enquiryInstead ? 'enquiry' : outcome) === name ? answers : undefined
}

const neverAsked = (questionnaire: Questionnaire, asked: ReadonlySet<number>): Finding[] =>
  questionnaire.questions.flatMap((question, i): Finding[] => {
    if (asked.has(i)) return []
    return [
      {
        kind: question.required ? 'hidden-required' : 'never-asked',
        grade: 'error',
        question: question.id,
        message: question.required
          ? 'It must be answered, but no way leads to it.'
          : 'No way leads to it: it is never asked.',
      },
    ]
  })

const neverFires = (questionnaire: Questionnaire, fired: ReadonlySet<number>): Finding[] =>
  questionnaire.rules.flatMap((rule, i): Finding[] =>
    fired.has(i) || isUnfinished(rule)
      ? []
      : [
          {
            kind: 'never-fires',
            grade: 'error',
            rule: rule.id,
            message: 'It never acts, whatever is answered.',
          },
        ],
  )

/** Conditions that can never hold, whatever is answered: they contradict themselves. */
function contradictions(questionnaire: Questionnaire): Finding[] {
  const formulas = new Formulas()
  const said = (when: Condition | undefined, where: Partial<Finding>): Finding[] =>
    when && formulas.of(when) === Formulas.FALSE
      ? [{ kind: 'contradiction', grade: 'error', message: 'Its condition contradicts itself.', ...where }]
      : []
  return [
    ...questionnaire.questions.flatMap((question) => said(question.when, { question: question.id })),
    ...questionnaire.rules.flatMap((rule) => (isUnfinished(rule) ? [] : said(rule.when, { rule: rule.id }))),
  ]
}

/** Choices that no condition looks at, in questions of which some other choice is looked at. */
function withoutEffect(questionnaire: Questionnaire): Finding[] {
  const conditions = [
    ...questionnaire.questions.flatMap((question) => (question.when ? [question.when] : [])),
    ...questionnaire.rules.map((rule) => rule.when),
  ].flatMap(leavesOf)
  return questionnaire.questions.flatMap((question): Finding[] => {
    if (!('choices' in question) || question.choices.some((choice) => choice.points)) return []
    const looked = new Set(
      conditions.flatMap((condition) =>
        'question' in condition && condition.question === question.id && 'value' in condition
          ? [String(condition.value)]
          : [],
      ),
    )
    if (looked.size === 0) return []
    const left = question.choices.filter((choice) => !looked.has(choice.id))
    // One choice left over is what happens otherwise; of several, some make no difference among them.
    if (left.length < 2) return []
    const names = left.map((choice) => `“${choice.text}”`)
    const all = `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`
    const message = `Whether one chooses ${all} makes no difference to anything.`
    return [
      {
        kind: 'no-effect',
        grade: 'note',
        question: question.id,
        choices: left.map((choice) => choice.id),
        message,
      },
    ]
  })
}

/** An amount as people write it: "€95", "95.00 €", "EUR 95,50". */
const AMOUNT =
  /(?:[€$£]|\b[A-Z]{3})\s?(\d+(?:[.,]\d{1,2})?)|\b(\d+(?:[.,]\d{1,2})?)\s?(?:[€$£]|[A-Z]{3}\b|euros?\b)/gu

/** Questions that name a price which is not that of the service. */
function otherPrices(
  { questions }: Questionnaire,
  { price }: Service,
  currency: Currency | undefined,
): Finding[] {
  if (!currency || price.kind === 'free') return []
  const own = price.kind === 'fixed' ? price.amount : price.rate
  return questions.flatMap((question): Finding[] => {
    const choices = 'choices' in question ? question.choices.map(({ text }) => text) : []
    const said = [question.text, question.help ?? '', ...choices].join(' ')
    const amounts = [...said.matchAll(AMOUNT)].map((match) =>
      Number((match[1] ?? match[2])!.replace(',', '.')),
    )
    const other = amounts.find((amount) => Math.round(amount * 10 ** currency.decimals) !== own)
    if (other === undefined) return []
    const message = `It names ${other}, and this service costs ${own / 10 ** currency.decimals}. Write {price} instead: it is filled in from the service.`
    return [{ kind: 'other-price', grade: 'note', question: question.id, message }]
  })
}

/** Questions for what the door asks in any case, or that are asked twice. */
function knownAlready(questionnaire: Questionnaire): Finding[] {
  const plain = (question: Question): string =>
    question.text
      .toLowerCase()
      .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
      .trim()
  const own = /\b(your (full |first )?name|e ?mail|mail address|phone( number)?)\b/i
  return questionnaire.questions.flatMap((question, i): Finding[] => {
    const twin = questionnaire.questions.slice(0, i).find((other) => plain(other) === plain(question))
    const message = twin
      ? 'The same has been asked before.'
      : ['short', 'email', 'phone'].includes(question.kind) && own.test(question.text)
        ? 'Name, mail address and phone are asked with the terms in any case.'
        : undefined
    return message ? [{ kind: 'known-already', grade: 'note', question: question.id, message }] : []
  })
}
