import type { BookingEvent } from '@acolhida/core/booking'
import type { Enquiry } from '@acolhida/core/contract'
import { type Change, MapStore } from '@acolhida/core/house'
import type { CourseEvent } from '@acolhida/core/preparing'
import type { FreedEvent, LineEvent } from '@acolhida/core/waiting'

const put = <T>(records: Map<string, T[]>, id: string, event: T): void => {
  const record = records.get(id)
  if (record) record.push(event)
  else records.set(id, [event])
}

/** A store that also writes down what happened, in its order. */
export class WrittenDown extends MapStore {
  readonly events = new Map<string, BookingEvent[]>()
  readonly enquiries: Enquiry[] = []
  readonly places = new Map<string, LineEvent[]>()
  readonly freed = new Map<string, FreedEvent[]>()
  readonly courses = new Map<string, CourseEvent[]>()

  override write(changes: readonly Change[]): void {
    super.write(changes)
    for (const change of changes) {
      if (change.type === 'event') put(this.events, change.booking, change.event)
      if (change.type === 'waiting') put(this.places, change.id, change.event)
      if (change.type === 'freed') put(this.freed, change.id, change.event)
      if (change.type === 'course') put(this.courses, change.id, change.event)
      if (change.type === 'enquiry' && !('news' in change.body)) this.enquiries.push(change.body)
    }
  }
}
