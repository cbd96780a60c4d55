import '@acolhida/core/words/all'
import type { DoorService } from '@acolhida/core/contract'
import { instantOf, type LocalDateTime, zone } from '@acolhida/core/time'
import { describe, expect, it } from 'vitest'
import { lengthAndPlace, priceWords, whatHappensWhen } from './words.ts'

const lisbon = zone('Europe/Lisbon')
const clocks = { first: lisbon }
const at = (text: string) => instantOf(lisbon, text as LocalDateTime)
const euro = { code: 'EUR', decimals: 2 }
const priced = (price: DoorService['price']) => priceWords({ price } as DoorService, euro)

describe('prices', () => {
  it('are said as people say them', () => {
    expect(priced({ kind: 'free' })).toBe('Free of charge')
    expect(priced({ kind: 'fixed', amount: 0 })).toBe('Free of charge')
    expect(priced({ kind: 'fixed', amount: 9_500 })).toBe('€95.00')
    expect(priced({ kind: 'hourly', rate: 7_200 })).toBe('€72.00 an hour')
    expect(lengthAndPlace(75, 'at the studio')).toBe('75 minutes at the studio')
    expect(lengthAndPlace(20, undefined)).toBe('20 minutes')
  })
})

describe('what happens when', () => {
  const free = at('2026-11-25T11:30')
  const half = at('2026-11-26T07:30')
  const kept = {
    deadlines: [
      { kind: 'cancel' as const, until: free, share: 0 },
      { kind: 'move' as const, until: free },
      { kind: 'cancel' as const, until: half, share: 50 },
    ],
    shareAfter: 100,
  }

  it('names real dates and the zone they are in, and of moving nothing, which has its own place', () => {
    expect(whatHappensWhen(kept, 9_500, clocks, at('2026-11-24T09:00'), true)).toEqual([
      'You can cancel free of charge until Wed 25 Nov, 11:30 (Lisbon time).',
      'Until Thu 26 Nov, 07:30 (Lisbon time), cancelling costs 50 % of the price.',
      'After that, the whole price is due.',
    ])
  })

  it('says what the practitioner promises for their part, where something is paid', () => {
    const mine = { until: free, cancelled: 50, grace: 10, late: 100 }
    const said = whatHappensWhen({ ...kept, mine }, 9_500, clocks, at('2026-11-24T09:00'), true)
    expect(said.slice(3)).toEqual([
      'If I cancel later than Wed 25 Nov, 11:30 (Lisbon time), you get 50 % of the price from me.',
      'If I come more than 10 minutes late, the session is free of charge.',
    ])
    expect(whatHappensWhen({ ...kept, mine }, 0, clocks, at('2026-11-24T09:00'), true)).toHaveLength(1)
  })

  it('counts a deadline as open at its very moment, and drops it after', () => {
    expect(whatHappensWhen(kept, 9_500, clocks, free, true)[0]).toContain('free of charge until')
    expect(whatHappensWhen(kept, 9_500, clocks, at('2026-11-25T11:31'), true)[0]).toBe(
      'It is too near to be cancelled free of charge.',
    )
  })

  it('before the word is given, says that an hour after it is free, where anything ever is', () => {
    const near = at('2026-11-25T11:31')
    expect(whatHappensWhen(kept, 9_500, clocks, near, false)[0]).toBe(
      'It is near: you can cancel it free of charge within an hour after it is confirmed, and not later.',
    )
    expect(whatHappensWhen({ deadlines: [], shareAfter: 50 }, 9_500, clocks, near, false)).toEqual([
      'If you cancel, 50 % of the price is due.',
    ])
  })

  it('speaks of no money where none is asked', () => {
    expect(whatHappensWhen(kept, 0, clocks, at('2026-11-24T09:00'), true)).toEqual([
      'You can cancel free of charge until Wed 25 Nov, 11:30 (Lisbon time).',
    ])
    expect(whatHappensWhen(kept, 0, clocks, at('2026-11-26T09:00'), true)).toEqual([])
  })
})
