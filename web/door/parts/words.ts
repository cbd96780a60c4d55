import type { DoorService, Kept } from '@acolhida/core/contract'
import { type Currency, money } from '@acolhida/core/money'
import { type Instant, moment, type Zone } from '@acolhida/core/time'

/** "Free of charge", "€95.00", "€72.00 an hour"; nothing where the price is told after the questions. */
export function priceWords(service: Pick<DoorService, 'price'>, currency: Currency): string {
  const { price } = service
  if (!price) return ''
  if (price.kind === 'free') return 'Free of charge'
  if (price.kind === 'hourly') return `${money(price.rate, currency)} an hour`
  return price.amount === 0 ? 'Free of charge' : money(price.amount, currency)
}

/** "75 minutes at the studio in Coimbra"; without the length where that is told after the questions. */
export const lengthAndPlace = (minutes: number | undefined, place: string | undefined): string =>
  [minutes === undefined ? '' : `${minutes} minutes`, place].filter(Boolean).join(' ')

/** What happens when, as sentences with real dates. */
export function whatHappensWhen(
  kept: Pick<Kept, 'deadlines' | 'shareAfter'>,
  price: number,
  zone: Zone,
  now: Instant,
): string[] {
  const cancels = kept.deadlines.filter((deadline) => deadline.kind === 'cancel' && deadline.until >= now)
  const move = kept.deadlines.find((deadline) => deadline.kind === 'move')
  const free = cancels.find((cancel) => cancel.share === 0)
  const together = free && move && move.until === free.until
  const lines: string[] = []
  if (free) {
    lines.push(`${together ? 'Move or cancel' : 'Cancel'} free of charge until ${moment(free.until, zone)}.`)
  } else if (price > 0) {
    lines.push('It is too close to be cancelled free of charge.')
  }
  if (price > 0) {
    for (const tier of cancels) {
      if (tier.share)
        lines.push(`Until ${moment(tier.until, zone)}, cancelling costs ${tier.share} % of the price.`)
    }
    if (kept.shareAfter > 0)
      lines.push(
        `After that, ${kept.shareAfter === 100 ? 'the whole price' : `${kept.shareAfter} %`} is due.`,
      )
  }
  if (move && !together && move.until >= now) lines.push(`Move it until ${moment(move.until, zone)}.`)
  return lines
}
