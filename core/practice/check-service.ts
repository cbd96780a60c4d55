import { after, type Instant, type LocalDate, MINUTE, minutesOf, zone } from '../time/index.ts'
import type { PracticeFault } from './fault.ts'
import { blocksIn } from './hours-of-day.ts'
import type { Practice, Service } from './types.ts'

const hoursIn = (minutes: number): string =>
  minutes % 60 ? `${Math.floor(minutes / 60)} h ${minutes % 60}` : `${minutes / 60} h`

function longestBlock(practice: Practice, service: Service): number {
  const places = practice.places.filter((place) => service.places.includes(place.id))
  const blocks = places
    .map((place) => place.hours ?? practice.hours)
    .flatMap((hours) => blocksIn(hours).flatMap(({ blocks }) => blocks))
  return Math.max(0, ...blocks.map((block) => minutesOf(block.to) - minutesOf(block.from)))
}

const nobody = (path: string, why: string): PracticeFault => ({
  path,
  message: `Nobody can ever book this: ${why}.`,
  grade: 'warning',
})

/**
 * How many days so many working days take at most, by the weekly hours alone; none without any hours, or where seasons
 * have weeks of their own.
 */
function daysFor(practice: Practice, workingDays: number): number | undefined {
  if (practice.hours.seasons?.length) return undefined
  const works = practice.hours.weekly.map((blocks) => blocks.length > 0)
  const aWeek = works.filter(Boolean).length
  if (aWeek === 0) return undefined
  const spans = works.map((_, today) => {
    let left = workingDays
    let days = 0
    while (left > 0) if (works[(today + ++days) % 7]) left--
    return days
  })
  return Math.max(...spans)
}

/** The notice against the reach: when even the last day that can be reached is too soon. */
function noticeBeyondReach(practice: Practice, service: Service, path: string): PracticeFault[] {
  const { reach, notice } = service
  const days =
    reach.kind === 'days'
      ? reach.days
      : reach.kind === 'working-days'
        ? daysFor(practice, reach.days)
        : undefined
  if (days === undefined || practice.weekCloses) return []
  // By an ordinary day: what only a change of clocks would let through is no offer.
  const noon = Date.UTC(2027, 0, 4, 12) as Instant
  const needed = (after(noon, notice, zone('UTC')) - noon) / MINUTE
  if (needed < (days + 1) * 1440) return []
  const reached = reach.kind === 'days' ? `${reach.days} days` : `${days} days at most`
  return [nobody(`${path}.notice`, `the notice is ${hoursIn(needed)}, and the reach ends after ${reached}`)]
}

/** What would keep everybody from ever booking a service, each beside the setting it follows from. */
export function checkBookable(
  practice: Practice,
  service: Service,
  path: string,
  today: LocalDate | undefined,
): PracticeFault[] {
  const faults: PracticeFault[] = []
  const longest = longestBlock(practice, service)
  const needs = service.minutes + (service.clearInsideHours ? service.clearBefore + service.clearAfter : 0)
  const byDate = service.seats > 1 && service.groupAt === 'dates'
  if (!byDate && needs > longest) {
    faults.push(nobody(`${path}.minutes`, `the longest block of hours is ${hoursIn(longest)}`))
  }
  faults.push(...noticeBeyondReach(practice, service, path))
  const { earliestStart, latestStart, reach, season, least, seats, price } = service
  if (earliestStart && latestStart && earliestStart > latestStart) {
    faults.push(nobody(`${path}.latestStart`, `the latest start comes before the earliest, ${earliestStart}`))
  }
  if (season?.on && season.from && season.to && season.from > season.to) {
    faults.push(nobody(`${path}.season`, 'its last day comes before its first'))
  }
  if (today && reach.kind === 'until' && reach.date < today) {
    faults.push(nobody(`${path}.reach`, `the reach ended on ${reach.date}`))
  }
  if (today && season?.on && season.to && season.to < today && service.on) {
    faults.push(nobody(`${path}.season`, `it has been off the door since ${season.to}`))
  }
  if (least && byDate && least.people > seats) {
    faults.push({
      path: `${path}.least`,
      message: `Every date will be called off: there are ${seats} seats, and at least ${least.people} must come.`,
      grade: 'warning',
    })
  }
  const usual = price.kind === 'fixed' ? price.amount : price.kind === 'hourly' ? price.rate : 0
  if (price.kind !== 'free' && price.whole !== undefined && price.whole >= usual) {
    faults.push({
      path: `${path}.price`,
      message: 'The price at starts that keep the day whole is not lower than the usual one.',
      grade: 'warning',
    })
  }
  return faults
}
