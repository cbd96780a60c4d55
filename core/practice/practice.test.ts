import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { letIn, practice as practiceSchema } from '../schemas/index.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import {
  type Duration,
  date,
  type Instant,
  type LocalDate,
  parseInstant,
  type WallTime,
  zone,
} from '../time/index.ts'
import {
  aroundService,
  type Block,
  checkPractice,
  clockChanges,
  copySettings,
  type Hours,
  moveService,
  offeredOn,
  type Practice,
  SETTINGS_GROUPS,
  type Service,
  type SettingsGroup,
  travelled,
  travelZoneAt,
  travelZoneOf,
  withoutPlace,
  withoutService,
} from './index.ts'

const near = { id: 'near', name: 'In Coimbra', surcharge: 0, clear: 0, postalCodes: ['3000', '30'] }
const round = { id: 'round', name: 'Around it', surcharge: 1_500, clear: 30, postalCodes: ['30-50', '31'] }

describe('a travel zone', () => {
  it('is found by the longest beginning of the postal code, however it is written', () => {
    const found = (code: string) => travelZoneAt([near, round], code)?.id
    expect(found('3000-213')).toBe('near')
    expect(found(' 30 50 100')).toBe('round')
    expect(found('3090-001')).toBe('near')
    expect(found('3100')).toBe('round')
    expect(found('1000-001')).toBeUndefined()
    expect(found('')).toBeUndefined()
    expect(travelZoneAt([{ ...near, postalCodes: ['ec1a'] }], 'EC1A 1BB')?.id).toBe('near')
  })

  it('never depends on the order of zones whose beginnings differ', () => {
    const beginnings = fc.uniqueArray(fc.stringMatching(/^[0-9]{1,4}$/), { minLength: 2, maxLength: 8 })
    fc.assert(
      fc.property(beginnings, fc.stringMatching(/^[0-9]{5}$/), (codes, code) => {
        const zones = codes.map((code) => ({ id: code, postalCodes: [code] }))
        const plain = codes.filter((text) => code.startsWith(text)).sort((a, b) => b.length - a.length)[0]
        expect(travelZoneAt(zones, code)?.id).toBe(plain)
        expect(travelZoneAt([...zones].reverse(), code)?.id).toBe(plain)
      }),
    )
  })

  it('keeps the way there and back clear, on top of the service’s own', () => {
    const service = travelled(sampleService({ clearBefore: 15, clearAfter: 5 }), round)
    expect([service.clearBefore, service.clearAfter]).toEqual([45, 35])
    const plain = sampleService()
    expect(travelled(plain, near)).toBe(plain)
    expect(travelled(plain, undefined)).toBe(plain)
    const place = {
      id: 'there',
      kind: 'client',
      name: 'at yours',
      told: 'door',
      travel: [near, round],
    } as const
    expect(travelZoneOf({ ...place, travel: [near, round] }, 'round')).toBe(round)
    expect(travelZoneOf({ ...place, travel: [near] }, 'round')).toBeUndefined()
  })
})

describe('a season', () => {
  const on = (season: object, today: string, isOn = true) =>
    offeredOn(sampleService({ on: isOn, season: season as never }), date(today))

  it('puts a service on the door from a date to a date, both included', () => {
    const summer = { on: true, from: '2027-06-01', to: '2027-08-31' }
    expect(on(summer, '2027-05-31')).toBe(false)
    expect(on(summer, '2027-06-01')).toBe(true)
    expect(on(summer, '2027-08-31')).toBe(true)
    expect(on(summer, '2027-09-01')).toBe(false)
    expect(on(summer, '2027-07-01', false)).toBe(false)
  })

  it('takes it off from a date to a date, and may be open at either end', () => {
    const pause = { on: false, from: '2027-06-01', to: '2027-06-30' }
    expect(on(pause, '2027-05-31')).toBe(true)
    expect(on(pause, '2027-06-30')).toBe(false)
    expect(on({ on: true, from: '2027-06-01' }, '2030-01-01')).toBe(true)
    expect(on({ on: false, to: '2027-06-01' }, '2027-06-01')).toBe(false)
    expect(offeredOn(sampleService({ on: true }), date('2027-01-01'))).toBe(true)
  })
})

const block = (from: string, to: string, reservedFor?: Block['reservedFor']): Block => ({
  from: from as WallTime,
  to: to as WallTime,
  ...(reservedFor ? { reservedFor } : {}),
})
const everyDay = (blocks: Block[]): Hours => ({
  weekly: [blocks, blocks, blocks, blocks, blocks, blocks, blocks],
  changedDays: [],
})

describe('days of 23 and 25 hours', () => {
  const lisbon = zone('Europe/Lisbon')
  const told = (hours: Hours, from: string, where = lisbon) =>
    clockChanges(hours, where, date(from), 3).map((clockChange) => [
      clockChange.date,
      clockChange.hours,
      clockChange.wall,
      clockChange.minutes,
    ])

  it('are told where they touch the hours, and only there', () => {
    const night = everyDay([block('00:30', '04:30'), block('09:00', '13:00')])
    // The clocks of Lisbon go forward on 2027-03-28 at 01:00 and back on 2026-10-25 at 02:00.
    expect(told(night, '2027-03-27')).toEqual([['2027-03-28', 23, 240, 180]])
    expect(told(night, '2026-10-24')).toEqual([['2026-10-25', 25, 240, 300]])
    expect(told(everyDay([block('09:00', '13:00')]), '2027-03-27')).toEqual([])
  })

  it('can leave no time at all, and may be half an hour', () => {
    expect(told(everyDay([block('01:30', '02:15')]), '2027-03-27')).toEqual([['2027-03-28', 23, 45, 0]])
    // Lord Howe moves by half an hour: 2026-10-04 at 02:00.
    expect(told(everyDay([block('01:00', '04:00')]), '2026-10-03', zone('Australia/Lord_Howe'))).toEqual([
      ['2026-10-04', 23.5, 180, 150],
    ])
  })

  it('follow a changed day, not the weekly hours it replaces', () => {
    const hours = { ...everyDay([block('00:30', '04:30')]), changedDays: [] as Hours['changedDays'] }
    hours.changedDays.push({ date: '2027-03-28' as LocalDate, blocks: [block('10:00', '12:00')] })
    expect(told(hours, '2027-03-27')).toEqual([])
  })
})

describe('taking away', () => {
  const close = { do: 'close', message: 'No.', services: ['s', 'other'], enquiry: true } as const
  const suggest = { do: 'suggest', service: 'other' } as const
  const base = samplePractice({ services: [sampleService(), sampleService({ id: 'other' })] })
  const kept = (reservedFor: Block['reservedFor']): Practice => ({
    ...base,
    hours: everyDay([block('09:00', '13:00', reservedFor)]),
    questionnaires: base.questionnaires.map((questionnaire) => ({
      ...questionnaire,
      rules: [
        { id: 'a', name: 'A', when: { all: [] }, effect: { ...close, services: [...close.services] } },
        { id: 'b', name: 'B', when: { all: [] }, effect: suggest },
      ],
    })),
  })
  const first = (p: Practice) => p.hours.weekly[0]?.[0]?.reservedFor

  it('a service takes along the hours kept for it and the rules that lead to it', () => {
    const without = withoutService(kept({ services: ['other', 's'], known: true }), 'other')
    expect(first(without)).toEqual({ services: ['s'], known: true })
    expect(without.questionnaires[0]?.rules).toHaveLength(1)
    expect(without.questionnaires[0]?.rules[0]?.effect).toMatchObject({ services: ['s'] })
    expect(checkPractice(without)).toEqual([])
    expect(first(withoutService(kept({ services: ['other'] }), 'other'))).toBeUndefined()
    expect(first(withoutService(kept({ known: true }), 'other'))).toEqual({ known: true })
  })

  it('a place takes along the hours kept for it, its own hours included', () => {
    const inside = { ...kept({ places: ['gone'] }) }
    inside.places = [
      { ...base.places[0]!, hours: everyDay([block('10:00', '11:00', { places: ['gone', 'video'] })]) },
      { id: 'gone', kind: 'other', name: 'elsewhere', told: 'door' },
    ]
    const without = withoutPlace(inside, 'gone')
    expect(without.places.map((place) => place.id)).toEqual(['video'])
    expect(first(without)).toBeUndefined()
    expect(without.places[0]?.hours?.weekly[0]?.[0]?.reservedFor).toEqual({ places: ['video'] })
  })
})

describe('settings copied to other services', () => {
  const NOW = parseInstant('2026-11-24T12:00Z')
  const from = sampleService({ id: 'from', perDay: 2, clearBefore: 45, notice: 'PT48H' as Duration })
  const to = sampleService({ id: 'to', perWeek: 3, name: 'Another' })
  const practice = samplePractice({ services: [from, to] })
  const copied = (groups: SettingsGroup[]): Service =>
    copySettings(practice, 'from', ['to', 'from'], groups, NOW).services[1]!

  it('bring what was chosen and nothing else', () => {
    expect(copied(['clear'])).toEqual({ ...to, clearBefore: 45 })
    const limits = copied(['limits'])
    expect(limits.perDay).toBe(2)
    expect('perWeek' in limits).toBe(false)
    expect(copySettings(practice, 'nobody', ['to'], ['clear'], NOW)).toBe(practice)
  })

  it('bring a sequence from now on, and leave alone what had it already', () => {
    const earlier = parseInstant('2026-11-01T12:00Z')
    const around = (service: Service, at: Instant): Service => aroundService(service, 'q', at)
    const services = [around(from, earlier), to, around(sampleService({ id: 'had' }), earlier)]
    const [, came, had] = copySettings(
      { ...practice, services },
      'from',
      ['to', 'had'],
      ['messages'],
      NOW,
    ).services
    expect(came).toMatchObject({ sequence: 'q', sequenceSince: NOW })
    expect(had).toMatchObject({ sequence: 'q', sequenceSince: earlier })
    const [, none] = copySettings(
      { ...practice, services: [to, came!] },
      'to',
      [came!.id],
      ['messages'],
      NOW,
    ).services
    expect(none).toMatchObject(to)
  })

  it('never touch what a service is, whatever is copied', () => {
    const all = copied(SETTINGS_GROUPS)
    expect([all.id, all.name, all.minutes, all.on]).toEqual(['to', 'Another', to.minutes, to.on])
    const next = copySettings(practice, 'from', ['to'], SETTINGS_GROUPS, NOW)
    expect(() => letIn(practiceSchema, next, 'It')).not.toThrow()
  })
})

describe('the order of services', () => {
  const services = [
    sampleService({ id: 'a', section: 'Alone' }),
    sampleService({ id: 'b', section: 'Alone' }),
    sampleService({ id: 'c', section: 'Together' }),
    sampleService({ id: 'd' }),
  ]
  const moved = (from: number, to: number) =>
    moveService(samplePractice({ services }), from, to).services.map(
      (service) => `${service.id}:${service.section ?? '-'}`,
    )

  it('changes, and a service comes under the heading of the one before it', () => {
    expect(moved(0, 2)).toEqual(['b:Alone', 'c:Together', 'a:Together', 'd:-'])
    expect(moved(2, 0)).toEqual(['c:Alone', 'a:Alone', 'b:Alone', 'd:-'])
    expect(moved(0, 3)).toEqual(['b:Alone', 'c:Together', 'd:-', 'a:-'])
  })

  it('keeps every service, whatever is moved where', () => {
    fc.assert(
      fc.property(fc.nat(5), fc.nat(3), (from, to) => {
        expect(
          moved(from, to)
            .map((text) => text[0])
            .sort(),
        ).toEqual(['a', 'b', 'c', 'd'])
      }),
    )
  })
})

describe('what keeps everybody from booking', () => {
  const fault = (change: Partial<Service>, today?: string, more: Partial<Practice> = {}) =>
    checkPractice(
      samplePractice({ services: [sampleService(change)], ...more }),
      today === undefined ? undefined : date(today),
    ).map((fault) => `${fault.path}: ${fault.message}`)

  it('is said beside the setting it follows from', () => {
    expect(fault({ notice: 'P3D' as Duration, reach: { kind: 'days', days: 2 } })).toEqual([
      'services[0].notice: Nobody can ever book this: the notice is 72 h, and the reach ends after 2 days.',
    ])
    expect(fault({ notice: 'PT71H' as Duration, reach: { kind: 'days', days: 2 } })).toEqual([])
    // Five working days from any day of a Monday-to-Friday week take seven days at most.
    const week = { kind: 'working-days', days: 5 } as const
    expect(fault({ notice: 'P7D' as Duration, reach: week })).toEqual([])
    expect(fault({ notice: 'P8D' as Duration, reach: week })[0]).toMatch(/ends after 7 days at most/)
    expect(fault({ earliestStart: '15:00' as WallTime, latestStart: '10:00' as WallTime })[0]).toMatch(
      /^services\[0\].latestStart: Nobody/,
    )
    expect(fault({ price: { kind: 'fixed', amount: 5_000, whole: 5_000 } })[0]).toMatch(/not lower/)
    const least = { people: 7, by: 'PT24H' as Duration }
    expect(fault({ seats: 6, groupAt: 'dates', least })[0]).toMatch(/6 seats, and at least 7/)
  })

  it('looks at what has passed when it is told the day', () => {
    const until = { kind: 'until', date: '2026-12-31' as LocalDate } as const
    expect(fault({ reach: until })).toEqual([])
    expect(fault({ reach: until }, '2026-12-31')).toEqual([])
    expect(fault({ reach: until }, '2027-01-01')[0]).toMatch(/the reach ended on 2026-12-31/)
    const season = { on: true, to: '2026-12-31' as LocalDate }
    expect(fault({ season }, '2027-01-01')[0]).toMatch(/off the door since 2026-12-31/)
    const backwards = { on: true, from: '2027-02-01' as LocalDate, to: '2027-01-01' as LocalDate }
    expect(fault({ season: backwards })[0]).toMatch(/its last day comes before its first/)
  })

  it('refuses shares that fall the later one cancels, and two that end at one moment', () => {
    const faults = (cancel: [string, number][], cancelAfter: number): string[] =>
      checkPractice({
        ...samplePractice(),
        houseRules: {
          ...samplePractice().houseRules,
          cancel: cancel.map(([until, share]) => ({ until: until as Duration, share })),
          cancelAfter,
        },
      })
        .filter(({ path }) => path.startsWith('houseRules'))
        .map(({ path, message }) => `${path}: ${message}`)
    expect(
      faults(
        [
          ['P7D', 0],
          ['PT24H', 50],
        ],
        100,
      ),
    ).toEqual([])
    // The order in which they are written is nobody's concern.
    expect(
      faults(
        [
          ['PT24H', 50],
          ['P7D', 0],
        ],
        100,
      ),
    ).toEqual([])
    expect(
      faults(
        [
          ['P7D', 50],
          ['PT24H', 0],
        ],
        100,
      ),
    ).toEqual([
      "houseRules.cancel[0].share: Until then 50 % are due, and 0 % afterwards: cancelling later can't cost less than earlier.",
    ])
    expect(faults([['PT24H', 80]], 50)[0]).toContain('80 % are due, and 50 % afterwards')
    expect(
      faults(
        [
          ['P1D', 0],
          ['PT24H', 50],
        ],
        100,
      )[0],
    ).toContain('end at the same moment')
  })

  it('refuses a postal code in two zones, and says where it is already', () => {
    const zones = [
      { id: 'a', name: 'Near', surcharge: 0, clear: 0, postalCodes: ['30'] },
      { id: 'b', name: 'Far', surcharge: 0, clear: 0, postalCodes: ['31', '30'] },
    ]
    const places: Practice['places'] = [{ ...samplePractice().places[0]!, travel: zones }]
    expect(fault({}, undefined, { places })).toEqual([
      'places[0].travel[1].postalCodes: “30” is in Near already; each beginning can stand in one zone only.',
    ])
  })
})
