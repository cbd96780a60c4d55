import type { Practice, Service } from '../practice/types.ts'
import { after, type Duration, duration, type Instant, type LocalDate, zone } from '../time/index.ts'
import type { Ask } from './ask.ts'
import { type Diary, makeDiary } from './diary.ts'
import { openStarts } from './open-starts.ts'

/** A rule made a little easier: how it is said, and how many more starts would be open. */
export interface WhatIf {
  change:
    | { rule: 'notice'; notice: Duration }
    | { rule: 'reach'; days: number; working: boolean }
    | { rule: 'clear'; before: number; after: number }
    | { rule: 'day-limit' | 'week-limit'; of: 'service' | 'practice'; limit: number }
    | { rule: 'untidy' }
  more: number
}

/** Notices that are usual, the longest first (common practice, no source). */
const NOTICES = ['P7D', 'PT48H', 'PT24H', 'PT12H', 'PT2H', 'PT0S'].map(duration)

/** The usual notice that is next shorter than one; nothing below none. */
function shorterNotice(notice: Duration, now: Instant): Duration | undefined {
  const utc = zone('UTC')
  const length = (duration: Duration): number => after(now, duration, utc) - now
  return NOTICES.find((duration) => length(duration) < length(notice))
}

const half = (minutes: number): number => Math.floor(minutes / 10) * 5

interface Variant {
  change: WhatIf['change']
  service?: Partial<Service>
  limits?: Partial<Practice['limits']>
}

function variants({ service, now }: Ask, practice: Practice): Variant[] {
  const list: Variant[] = []
  const notice = practice.weekCloses ? undefined : shorterNotice(service.notice, now)
  if (notice) list.push({ change: { rule: 'notice', notice }, service: { notice } })
  const { reach } = service
  if (reach.kind === 'days' || reach.kind === 'working-days') {
    const days = reach.days * 2
    const working = reach.kind === 'working-days'
    list.push({ change: { rule: 'reach', days, working }, service: { reach: { ...reach, days } } })
  }
  if (service.clearBefore + service.clearAfter > 0) {
    const before = half(service.clearBefore)
    const behind = half(service.clearAfter)
    list.push({
      change: { rule: 'clear', before, after: behind },
      service: { clearBefore: before, clearAfter: behind },
    })
  }
  const limits = practice.limits
  for (const [rule, key] of [
    ['day-limit', 'perDay'],
    ['week-limit', 'perWeek'],
  ] as const) {
    const own = service[key]
    if (own) list.push({ change: { rule, of: 'service', limit: own + 1 }, service: { [key]: own + 1 } })
    const all = limits[key]
    if (all) list.push({ change: { rule, of: 'practice', limit: all + 1 }, limits: { [key]: all + 1 } })
  }
  if (service.tidy) list.push({ change: { rule: 'untidy' }, service: { tidy: false } })
  return list
}

/** The diary as it would be, had the sessions of a service been given other space. */
const withClear = (
  practice: Practice,
  diary: Diary,
  service: string,
  { before, after: behind }: { before: number; after: number },
): Diary =>
  makeDiary(
    practice,
    diary.entries.map((entry) =>
      entry.service === service
        ? {
            ...entry,
            clearBefore: Math.min(entry.clearBefore, before),
            clearAfter: Math.min(entry.clearAfter, behind),
          }
        : entry,
    ),
  )

/**
 * What each rule, made a little easier, would open in a span of days: "with a notice of 12 h, 9 more starts". The
 * most rewarding first; what would open nothing is left out.
 */
export function whatIf(practice: Practice, diary: Diary, ask: Ask, from: LocalDate, days: number): WhatIf[] {
  const now = openStarts(practice, diary, ask, from, days).length
  return variants(ask, practice)
    .map(({ change, service, limits }): WhatIf => {
      const easier = { ...ask, service: { ...ask.service, ...service } }
      const there = limits ? { ...practice, limits: { ...practice.limits, ...limits } } : practice
      const then = change.rule === 'clear' ? withClear(practice, diary, ask.service.id, change) : diary
      return { change, more: openStarts(there, then, easier, from, days).length - now }
    })
    .filter((whatIf) => whatIf.more > 0)
    .sort((a, b) => b.more - a.more)
}

/** "with a notice of 12 h", "with 5 sessions a day". */
export function whatIfWords({ change }: WhatIf): string {
  switch (change.rule) {
    case 'notice':
      return change.notice === 'PT0S'
        ? 'without any notice'
        : `with a notice of ${change.notice.replace(/^PT?(\d+)([DH])$/, (_, n, unit) => `${n} ${unit === 'D' ? 'days' : 'h'}`)}`
    case 'reach':
      return `with a reach of ${change.days} ${change.working ? 'working days' : 'days'}`
    case 'clear':
      return change.before === change.after
        ? `with ${change.before} min kept clear`
        : `with ${change.before} and ${change.after} min kept clear`
    case 'day-limit':
    case 'week-limit': {
      const span = change.rule === 'day-limit' ? 'a day' : 'a week'
      return `with ${change.limit} ${change.of === 'practice' ? 'sessions' : 'of these'} ${span}`
    }
    case 'untidy':
      return 'without asking for tidy starts'
  }
}
