import ICAL from 'ical.js'
import { DAY, type Instant, MINUTE, shift, type Zone } from '../time/index.ts'

/** A wall time as VTIMEZONE writes it: without any zone. */
const floating = (ms: number): ICAL.Time => {
  const time = ICAL.Time.fromJSDate(new Date(ms), true)
  time.zone = ICAL.Timezone.localTimezone
  return time
}

const offset = (ms: number): ICAL.UtcOffset => ICAL.UtcOffset.fromSeconds(ms / 1_000)

function observance(
  name: 'standard' | 'daylight',
  at: number,
  before: number,
  after: number,
): ICAL.Component {
  const component = new ICAL.Component(name)
  // The onset is written by the clock as it was before it (RFC 5545 §3.6.5).
  component.updatePropertyWithValue('dtstart', floating(at + before))
  component.updatePropertyWithValue('tzoffsetfrom', offset(before))
  component.updatePropertyWithValue('tzoffsetto', offset(after))
  return component
}

/** The instants at which a zone's offset changes in a span, ascending. */
function changes(zone: Zone, from: Instant, to: Instant): Instant[] {
  const found: Instant[] = []
  for (let day = from as number; day < to; day += DAY) {
    const next = Math.min(day + DAY, to)
    if (zone.offsetAt(day as Instant) === zone.offsetAt(next as Instant)) continue
    // Halved down to the minute; offsets change at whole minutes.
    let low = Math.floor(day / MINUTE)
    let high = Math.ceil(next / MINUTE)
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if (zone.offsetAt((middle * MINUTE) as Instant) === zone.offsetAt(day as Instant)) low = middle
      else high = middle
    }
    found.push((high * MINUTE) as Instant)
  }
  return found
}

/**
 * A zone as a VTIMEZONE (RFC 5545 §3.6.5) with each change of its offset in a span written out. Programs that know
 * the tz database go by its name; the others by this.
 */
export function vtimezone(zone: Zone, from: Instant, to: Instant): ICAL.Component {
  const component = new ICAL.Component('vtimezone')
  component.updatePropertyWithValue('tzid', zone.name)
  const first = zone.offsetAt(from)
  component.addSubcomponent(observance('standard', from - (from % DAY), first, first))
  for (const at of changes(zone, from, to)) {
    const before = zone.offsetAt(shift(at, -1))
    const after = zone.offsetAt(at)
    component.addSubcomponent(observance(after > before ? 'daylight' : 'standard', at, before, after))
  }
  return component
}
