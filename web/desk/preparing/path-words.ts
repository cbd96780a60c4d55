import { type Minor, money } from '@acolhida/core/money'
import { type Path, type PathStation, type Practice, preparationOf } from '@acolhida/core/practice'
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

/** What can stand on the line of a path, as it is added. */
export const ON_A_PATH: Record<PathStation['does'], string> = {
  prepare: 'Something to prepare',
  sessions: 'Sessions',
  pay: 'Payments',
  pause: 'A pause',
}

/** What one thing on the line is called. */
export function stationName(practice: Practice, station: PathStation): string {
  if (station.does === 'sessions') return `Sessions of ${serviceName(practice, station.service)}`
  if (station.does === 'prepare')
    return preparationOf(practice, station.preparation)?.name ?? ON_A_PATH.prepare
  return ON_A_PATH[station.does]
}
