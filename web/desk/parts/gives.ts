import type { Booking } from '@acolhida/core/booking'
import { money, shareOf } from '@acolhida/core/money'
import { currencyOf } from './words.ts'

/** What one's own side of the rules gives a client, before it is done; nothing where it gives nothing. */
export const givesWords = ({ asked, price }: Booking, gives: number): string =>
  gives > 0 && price > 0
    ? ` By your own side of the rules, ${asked.person.name} gets ${money(shareOf(price, gives), currencyOf(asked.currency))} for it.`
    : ''
