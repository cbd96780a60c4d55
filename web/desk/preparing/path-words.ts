import { type Minor, money } from '@acolhida/core/money'
import type { Path, Practice } from '@acolhida/core/practice'
import { counted, currencyOf, serviceName } from '../parts/words.ts'

/** An amount in the practice's currency. */
export const cash = ({ profile }: Practice, amount: Minor): string =>
  money(amount, currencyOf(profile.currency))

/** A path in a line: what it has, and what it costs. */
export function pathLine(practice: Practice, { stations, price }: Path): string {
  const parts = stations.flatMap((station): string[] => {
    switch (station.does) {
      case 'sessions':
        return [`${station.many} × ${serviceName(practice, station.service)}, ${station.minutes} min`]
      case 'prepare':
        return []
      case 'pay':
        return [counted(station.parts, 'payment', 'payments')]
      default:
        return [`a pause of ${counted(station.days, 'day', 'days')}`]
    }
  })
  const things = stations.filter(({ does }) => does === 'prepare').length
  return [
    ...(things > 0 ? [counted(things, 'thing to prepare', 'things to prepare')] : []),
    ...parts,
    price === 0 ? 'free of charge' : cash(practice, price),
  ].join(' · ')
}
