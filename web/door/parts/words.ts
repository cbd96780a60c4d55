import type { DoorService, DoorView, Kept } from '@acolhida/core/contract'
import { type Currency, money } from '@acolhida/core/money'
import type { Clocks, Instant } from '@acolhida/core/time'
import { momentAt } from './clocks.ts'
import { say } from './say.ts'

/** "Free of charge", "€95.00", "€72.00 an hour"; nothing where the price is told after the questions. */
export function priceWords(
  service: Pick<DoorService, 'price'>,
  currency: Currency,
  { tax, taxOnTop }: Partial<DoorView['practice']> = {},
): string {
  const { price } = service
  if (!price) return ''
  if (price.kind === 'free' || (price.kind === 'fixed' && price.amount === 0)) return say('summary.free')
  const words =
    price.kind === 'hourly'
      ? say('summary.hourly', { price: money(price.rate, currency) })
      : money(price.amount, currency)
  return tax && taxOnTop ? say('summary.plus-tax', { price: words, tax }) : words
}

/** "75 minutes at the studio in Coimbra"; without the length where that is told after the questions. */
export const lengthAndPlace = (minutes: number | undefined, place: string | undefined): string =>
  minutes === undefined
    ? (place ?? '')
    : place
      ? say('summary.place', { minutes, place })
      : say('summary.minutes', { minutes })

/**
 * What cancelling costs when, and what the practitioner promises for their part, as sentences with real dates; nothing where nothing is paid.
 * @param worded whether the word has been given: until then, an hour after it is free, however near the session is
 */
export function whatHappensWhen(
  kept: Pick<Kept, 'deadlines' | 'shareAfter' | 'mine'>,
  price: number,
  clocks: Clocks,
  now: Instant,
  worded: boolean,
): string[] {
  const cancels = kept.deadlines.filter((deadline) => deadline.kind === 'cancel' && deadline.until >= now)
  const until = (at: Instant): string => momentAt(at, clocks)
  const lines: string[] = []
  const free = cancels.find((cancel) => cancel.share === 0)
  if (free) lines.push(say('cost.free', { until: until(free.until) }))
  if (price === 0) return lines
  const everFree = kept.deadlines.some(({ share }) => share === 0)
  if (!free && everFree) lines.push(say(worded ? 'cost.near' : 'cost.near-yet'))
  for (const tier of cancels)
    if (tier.share) lines.push(say('cost.share', { until: until(tier.until), share: tier.share }))
  if (kept.shareAfter > 0)
    lines.push(say(cancels.length > 0 ? 'cost.after' : 'cost.now', { share: kept.shareAfter }))
  const { mine } = kept
  if (mine && mine.cancelled > 0)
    lines.push(say('mine.cancelled', { until: until(mine.until), share: mine.cancelled }))
  if (mine && mine.late > 0) lines.push(say('mine.late', { minutes: mine.grace, share: mine.late }))
  return lines
}
