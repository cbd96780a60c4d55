import { longWeekdayName, shortDate } from '@acolhida/core/time'
import type { WaitingWindow } from '@acolhida/core/waiting'
import { listed } from '@acolhida/core/words'
import { say } from './say.ts'

/** When somebody could come, in words: "3 Dec to 20 Dec, Monday and Thursday, from 17:00". */
export function windowWords({ from, to, weekdays, after, before }: WaitingWindow): string {
  const dates =
    from !== undefined && from === to
      ? shortDate(from)
      : from !== undefined && to !== undefined
        ? say('window.dates', { from: shortDate(from), to: shortDate(to) })
        : from !== undefined
          ? say('window.from', { from: shortDate(from) })
          : to !== undefined
            ? say('window.to', { to: shortDate(to) })
            : ''
  const times =
    after !== undefined && before !== undefined
      ? say('window.between', { after, before })
      : after !== undefined
        ? say('window.after', { after })
        : before !== undefined
          ? say('window.before', { before })
          : ''
  const days = weekdays ? listed(weekdays.map(longWeekdayName), 'or') : ''
  return [dates, days, times].filter(Boolean).join(', ') || say('window.any')
}
