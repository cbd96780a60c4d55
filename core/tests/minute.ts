import { DateTime } from 'luxon'
import { Temporal } from 'temporal-polyfill'
import type { Ask, Entry } from '../openings/index.ts'
import { type Practice, placeOf } from '../practice/index.ts'

/**
 * The plain, slow reading of the definition of an opening, minute by minute, with other date libraries: luxon
 * from instants to the wall, Temporal ("compatible" is RFC 5545 §3.3.5) from the wall to instants. It shares
 * no code with the openings but their types.
 */
export function openByTheMinute(
  practice: Practice,
  entries: readonly Entry[],
  ask: Ask,
  from: string,
  days: number,
): number[] {
  const place = placeOf(practice, ask.place)
  const zone = place?.zone ?? practice.profile.zone
  const home = practice.profile.zone
  const instant = (day: string, time: string, where: string): number => {
    const midnight = Temporal.PlainDate.from(day).toPlainDateTime()
    const [h, m] = time.split(':').map(Number)
    return midnight.add({ hours: h!, minutes: m! }).toZonedDateTime(where, { disambiguation: 'compatible' })
      .epochMilliseconds
  }
  const local = (value: string, where: string): number => {
    const [day, time] = value.split('T')
    return instant(day!, time!, where)
  }
  const first = instant(from, '00:00', zone)
  const last = instant(Temporal.PlainDate.from(from).add({ days }).toString(), '00:00', zone)
  const { service } = ask
  const length = ask.minutes * 60_000
  const notice = DateTime.fromMillis(ask.now, { zone }).plus(luxonDuration(service.notice)).toMillis()
  const hours = place?.hours ?? practice.hours
  const blocks = new Map<string, { from: number; to: number; ok: boolean }[]>()
  const blocksOf = (day: string) => {
    let found = blocks.get(day)
    if (!found) {
      const changed = hours.changedDays.find((changed) => changed.date === day)
      const weekday = Temporal.PlainDate.from(day).dayOfWeek
      const season = hours.seasons?.find(({ from, to }) => from <= day && day <= to)
      found = (changed?.blocks ?? (season ?? hours).weekly[weekday - 1]!).map((block) => ({
        from: instant(day, block.from, zone),
        to: instant(day, block.to, zone),
        ok:
          ask.asker.who === 'practitioner' ||
          !block.reservedFor ||
          ((block.reservedFor.services?.includes(service.id) ?? true) &&
            (block.reservedFor.places?.includes(ask.place) ?? true) &&
            (!block.reservedFor.known || ask.asker.standing === 'known')),
      }))
      blocks.set(day, found)
    }
    return found
  }
  const away = practice.away.map((away) => [local(away.from, home), local(away.to, home)] as const)
  const space = (entry: Entry, entryFirst: boolean): number => {
    const own = entryFirst ? service.clearBefore : service.clearAfter
    if (entry.kind === 'outside') return own * 60_000
    const theirs = entryFirst ? entry.clearAfter : entry.clearBefore
    return (practice.space === 'sum' ? own + theirs : Math.max(own, theirs)) * 60_000
  }
  const counted = entries
    .filter((entry) => entry.kind !== 'outside' && entry.end > entry.start)
    .map((entry) => ({ ...entry, at: DateTime.fromMillis(entry.start, { zone: home }) }))
  const weekOf = (at: DateTime): string =>
    at.minus({ days: (at.weekday - practice.profile.weekStart + 7) % 7 }).toISODate()!
  const lastDate =
    service.reach.kind === 'days'
      ? // By dates and not by moments: the same time some days on may be missing there.
        Temporal.PlainDate.from(DateTime.fromMillis(ask.now, { zone: home }).toISODate()!)
          .add({ days: service.reach.days })
          .toString()
      : '9999-12-31'

  // Any block that can hold the session lies on one of these dates; the exact date is judged below.
  const nearby = Array.from({ length: days + 2 }, (_, i) =>
    blocksOf(
      Temporal.PlainDate.from(from)
        .add({ days: i - 1 })
        .toString(),
    ),
  ).flat()

  const open: number[] = []
  for (let s = first; s < last; s += 60_000) {
    const e = s + length
    if (s < ask.now || s < notice) continue
    if (!nearby.some((b) => s >= b.from && e <= b.to)) continue
    if (away.some(([a, z]) => a < e && z > s)) continue
    const clash = entries.some((entry) => {
      if (entry.end <= entry.start) return false
      if (entry.end <= s) return s - entry.end < space(entry, true)
      if (entry.start >= e) return entry.start - e < space(entry, false)
      return true
    })
    if (clash) continue
    const wall = DateTime.fromMillis(s, { zone })
    const wallHome = DateTime.fromMillis(s, { zone: home })
    if (wallHome.toISODate()! > lastDate) continue
    const day = wall.toISODate()!
    const cb = service.clearInsideHours ? service.clearBefore * 60_000 : 0
    const ca = service.clearInsideHours ? service.clearAfter * 60_000 : 0
    let inside = blocksOf(day).filter((b) => b.ok && s - cb >= b.from && e + ca <= b.to)
    if (service.starts.kind === 'every') {
      const step = service.starts.minutes * 60_000
      inside = inside.filter((b) => (s - b.from) % step === 0)
    } else if (!service.starts.times.some((time) => instant(day, time, zone) === s)) continue
    if (inside.length === 0) continue
    if (service.earliestStart && s < instant(day, service.earliestStart, zone)) continue
    if (service.latestStart && s > instant(day, service.latestStart, zone)) continue
    const onDay = counted.filter((entry) => entry.at.toISODate() === wallHome.toISODate())
    const inWeek = counted.filter((entry) => weekOf(entry.at) === weekOf(wallHome))
    const own = (list: typeof counted): number => list.filter((entry) => entry.service === service.id).length
    if (service.perDay && own(onDay) >= service.perDay) continue
    if (service.perWeek && own(inWeek) >= service.perWeek) continue
    if (practice.limits.perDay && onDay.length >= practice.limits.perDay) continue
    if (practice.limits.perWeek && inWeek.length >= practice.limits.perWeek) continue
    if (service.tidy) {
      const usable = practice.shortestUsable * 60_000
      const before = Math.min(
        ...entries.filter((x) => x.end <= s && x.end > x.start).map((x) => s - x.end - space(x, true)),
        ...away.filter(([, z]) => z <= s).map(([, z]) => s - z),
      )
      const behind = Math.min(
        ...entries.filter((x) => x.start >= e && x.end > x.start).map((x) => x.start - e - space(x, false)),
        ...away.filter(([a]) => a >= e).map(([a]) => a - e),
      )
      const tidy = inside.some((b) => {
        const left = Math.min(before, s - cb - b.from)
        const right = Math.min(behind, b.to - e - ca)
        return (left <= 0 || left >= usable) && (right <= 0 || right >= usable)
      })
      if (!tidy) continue
    }
    if (ask.asker.who === 'client') {
      if (ask.asker.blocked) continue
      if (service.bookableBy === 'invited' && !ask.asker.invited.includes(service.id)) continue
    }
    open.push(s)
  }
  return open
}

/** Hours count exactly, days nominally, in luxon too. */
function luxonDuration(iso: string): { days: number; hours: number; minutes: number } {
  const parsed = Temporal.Duration.from(iso)
  return { days: parsed.days + parsed.weeks * 7, hours: parsed.hours, minutes: parsed.minutes }
}
