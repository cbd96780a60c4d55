import type { ClientDoes, DeskDoes } from '@acolhida/core/booking'
import { DAY, HOUR, MINUTE, SECOND } from '@acolhida/core/time'
import fc from 'fast-check'

/** One thing that anybody may try, with numbers that pick among what there is. */
export type Try =
  | {
      who: 'client'
      does: 'read' | 'keep' | 'renew' | 'unkeep' | 'send' | 'enquire'
      visit: number
      nth: number
    }
  | { who: 'link'; does: ClientDoes['do']; booking: number; nth: number; stale: boolean }
  | { who: 'desk'; does: DeskDoes['do']; booking: number; nth: number }
  | {
      who: 'desk'
      does: 'enter' | 'series' | 'end-series' | 'move-series' | 'quote' | 'answer' | 'publish'
      booking: number
      nth: number
    }
  /** The practitioner, by the link in a mail. */
  | {
      who: 'word'
      does: 'welcome' | 'decline' | 'offer' | 'ask' | 'take-back' | 'end'
      booking: number
      nth: number
      stale: boolean
    }
  /** Somebody in line, or the practitioner for them. */
  | {
      who: 'line'
      does:
        | 'join'
        | 'prove'
        | 'change'
        | 'pause'
        | 'resume'
        | 'still'
        | 'leave'
        | 'take'
        | 'turn'
        | 'by-hand'
        | 'earlier'
        | 'out'
        | 'back'
        | 'look'
        | 'go'
        | 'stop'
        | 'skip'
        | 'offer'
        | 'book'
      nth: number
      which: number
    }
  /** Somebody with something to prepare, or a path; or the practitioner for them. */
  | {
      who: 'course'
      does:
        | 'give'
        | 'give-path'
        | 'open'
        | 'client'
        | 'half'
        | 'answer'
        | 'book'
        | 'chase'
        | 'done'
        | 'undone'
        | 'end'
        | 'pay'
        | 'pause'
        | 'resume'
        | 'extend'
        | 'invoice'
        | 'correct-invoice'
        | 'at-till'
        | 'till-tells'
        | 'take-back'
        | 'forget'
      nth: number
      which: number
    }
  | { who: 'post'; goes: boolean }
  /** What was answered, and is needed no more, is sealed for the desk. */
  | { who: 'seal' }
  | { who: 'time'; ms: number }
  /** The same call once more, under the same key. */
  | { who: 'again' }
  /** The relay ends and is started again. */
  | { who: 'till'; does: 'ask' | 'tell' | 'give'; booking: number; nth: number }
  | { who: 'restart' }

/** Stands for so long that it is some minutes after the first start of a session. */
export const TO_A_START = -1

/** What every history begins with, so that there is somebody to do something with: asked, proved, booked, by hand. */
export const FURNISHED: readonly Try[] = [
  { who: 'desk', does: 'enter', booking: 0, nth: 2 },
  { who: 'client', does: 'send', visit: 0, nth: 1 },
  { who: 'client', does: 'send', visit: 1, nth: 2 },
  { who: 'client', does: 'send', visit: 0, nth: 34 },
  { who: 'till', does: 'ask', booking: 1, nth: 0 },
  { who: 'till', does: 'tell', booking: 1, nth: 0 },
  { who: 'client', does: 'send', visit: 0, nth: 27 },
  { who: 'desk', does: 'offer', booking: 1, nth: 30 },
  { who: 'desk', does: 'enter', booking: 0, nth: 25 },
  { who: 'line', does: 'by-hand', nth: 0, which: 0 },
  { who: 'line', does: 'join', nth: 1, which: 1 },
  { who: 'line', does: 'join', nth: 0, which: 3 },
  { who: 'course', does: 'give', nth: 1, which: 1 },
  { who: 'course', does: 'give-path', nth: 2, which: 1 },
  { who: 'time', ms: 9 * SECOND },
]

const some = fc.nat({ max: 40 })
export const tries: fc.Arbitrary<Try> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({
      who: fc.constant('client' as const),
      does: fc.constantFrom(
        ...(['read', 'keep', 'keep', 'renew', 'unkeep', 'send', 'send', 'send', 'enquire'] as const),
      ),
      visit: fc.nat({ max: 1 }),
      nth: some,
    }),
  },
  {
    weight: 5,
    arbitrary: fc.record({
      who: fc.constant('link' as const),
      does: fc.constantFrom(
        ...([
          'prove',
          'prove',
          'prove',
          'accept',
          'refuse',
          'withdraw',
          'cancel',
          'move-own',
          'move-own',
          'reply',
          'plead',
          'agree',
          'agree',
        ] as const),
        ...(['come', 'speak', 'prepare', 'unwant'] as const),
      ),
      booking: some,
      nth: some,
      stale: fc.nat({ max: 4 }).map((n) => n === 0),
    }),
  },
  {
    weight: 5,
    arbitrary: fc.record({
      who: fc.constant('desk' as const),
      does: fc.constantFrom(
        ...([
          'welcome',
          'welcome',
          'decline',
          'offer',
          'ask',
          'take-back',
          'take-back',
          'take-back',
          'take-back',
          'overrule',
          'move',
          'cancel',
        ] as const),
        ...([
          'attend',
          'attend',
          'attend',
          'attend',
          'attend',
          'miss',
          'miss',
          'miss',
          'forgive',
          'run-late',
          'except',
          'sign',
          'concern',
          'pay',
          'pay',
          'give-back',
          'adjust',
          'invoice',
          'correct-invoice',
          'write',
          'steer',
          'steer',
        ] as const),
      ),
      booking: some,
      nth: some,
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      who: fc.constant('desk' as const),
      does: fc.constantFrom(
        ...(['enter', 'series', 'end-series', 'move-series', 'quote', 'answer', 'publish'] as const),
      ),
      booking: some,
      nth: some,
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      who: fc.constant('word' as const),
      does: fc.constantFrom(
        ...(['welcome', 'welcome', 'decline', 'offer', 'ask', 'take-back', 'take-back', 'end'] as const),
      ),
      booking: some,
      nth: some,
      stale: fc.nat({ max: 4 }).map((n) => n === 0),
    }),
  },
  {
    weight: 3,
    arbitrary: fc.record({
      who: fc.constant('till' as const),
      does: fc.constantFrom(...(['ask', 'ask', 'tell', 'tell', 'tell', 'give'] as const)),
      booking: some,
      nth: some,
    }),
  },
  {
    weight: 5,
    arbitrary: fc.record({
      who: fc.constant('line' as const),
      does: fc.constantFrom(
        ...(['join', 'join', 'by-hand', 'by-hand', 'earlier', 'prove', 'take', 'take', 'take'] as const),
        ...(['turn', 'turn', 'change', 'pause', 'resume', 'still', 'leave', 'out', 'back'] as const),
        ...(['look', 'go', 'stop', 'skip', 'offer', 'book'] as const),
      ),
      nth: some,
      which: some,
    }),
  },
  {
    weight: 5,
    arbitrary: fc.record({
      who: fc.constant('course' as const),
      does: fc.constantFrom(
        ...(['give', 'give', 'give-path', 'open', 'client', 'client', 'client', 'half', 'half'] as const),
        ...(['answer', 'book', 'book', 'chase', 'done', 'undone', 'end', 'pay', 'pause'] as const),
        ...(['invoice', 'invoice', 'correct-invoice', 'at-till', 'at-till', 'till-tells'] as const),
        ...(['resume', 'extend', 'take-back', 'take-back', 'forget'] as const),
      ),
      nth: some,
      which: some,
    }),
  },
  { weight: 2, arbitrary: fc.record({ who: fc.constant('post' as const), goes: fc.boolean() }) },
  { weight: 4, arbitrary: fc.record({ who: fc.constant('seal' as const) }) },
  {
    weight: 4,
    arbitrary: fc.record({
      who: fc.constant('time' as const),
      ms: fc.constantFrom(
        ...[1, SECOND, 8 * SECOND, 8 * SECOND + 1, 8 * SECOND + 1, 10 * MINUTE, 10 * MINUTE],
        ...[31 * MINUTE, 25 * HOUR, 9 * DAY, TO_A_START, TO_A_START, TO_A_START],
      ),
    }),
  },
  { weight: 1, arbitrary: fc.record({ who: fc.constant('again' as const) }) },
  { weight: 1, arbitrary: fc.record({ who: fc.constant('restart' as const) }) },
)
