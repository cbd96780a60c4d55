import { describe, expect, it } from 'vitest'
import { begin } from '../booking/index.ts'
import { sampleAsked } from '../tests/asked.ts'
import { samplePractice } from '../tests/sample.ts'
import { MINUTE, shift } from '../time/index.ts'
import {
  corrected,
  isMail,
  joinPeople,
  knownPeople,
  mailHash,
  normalMail,
  type Person,
  standingAt,
} from './index.ts'

const person = (id: string, change: Partial<Person> = {}): Person => ({
  id,
  name: id,
  emails: [`${id}@example.org`],
  invited: [],
  blocked: false,
  note: '',
  ...change,
})

describe('people', () => {
  it('are known by their mail address, however it is written', () => {
    expect(normalMail('  Tome@Example.ORG ')).toBe('tome@example.org')
    expect(mailHash('Tome@example.org', 'salt')).toBe(mailHash('tome@EXAMPLE.org', 'salt'))
    expect(mailHash('tome@example.org', 'salt')).not.toBe(mailHash('tome@example.org', 'other'))
  })

  it.each(['tome@example.org', ' tome@example.org ', 'a.b+c@sub.example.org'])(
    'may write from %s',
    (text) => {
      expect(isMail(text)).toBe(true)
    },
  )

  it.each(['', 'tome', 'tome@example', 'a b@example.org', '<a@example.org>', 'a@example.org,b@example.org'])(
    'do not write from "%s"',
    (text) => {
      expect(isMail(text)).toBe(false)
    },
  )

  it('are new until a first session has taken place', () => {
    const booked = { ...begin('b', sampleAsked()), status: 'booked' as const }
    const end = shift(booked.start, booked.asked.minutes * MINUTE)
    expect(standingAt([booked], shift(end, -1))).toBe('new')
    expect(standingAt([booked], end)).toBe('known')
    expect(standingAt([{ ...booked, status: 'cancelled' }], shift(end, 1))).toBe('new')
    expect(standingAt([{ ...booked, status: 'attended' }], booked.asked.at)).toBe('known')
  })

  it('can be joined, and nothing of the second is lost', () => {
    const joined = joinPeople(
      person('a', { invited: ['x'] }),
      person('b', { phone: '+44 7700 900001', invited: ['y'], note: 'n', blocked: true }),
    )
    expect(joined).toMatchObject({
      id: 'a',
      emails: ['a@example.org', 'b@example.org'],
      phone: '+44 7700 900001',
      invited: ['x', 'y'],
      note: 'n',
      blocked: true,
    })
  })

  it('reach the relay as hashes and standing only', () => {
    const booked = { ...begin('b', sampleAsked()), status: 'attended' as const }
    const told = knownPeople(
      [person('p', { emails: ['tome@example.org'], note: 'private' })],
      [booked],
      samplePractice(),
      'salt',
      booked.start,
    )
    expect(told).toEqual([
      {
        id: 'p',
        mailHashes: [mailHash('tome@example.org', 'salt')],
        standing: 'known',
        invited: [],
        blocked: false,
      },
    ])
  })
})

describe('what somebody answers about how they are reached', () => {
  const ana = person('ana', { phone: '+351 912 000 000' })

  it('takes the place of the number, and comes before the addresses', () => {
    expect(corrected(ana, 'phone', ' +351 913 000 000 ')).toEqual({ ...ana, phone: '+351 913 000 000' })
    const { phone: _, ...without } = ana
    expect(corrected(without, 'phone', '+351 913')).toEqual({ ...without, phone: '+351 913' })
    expect(corrected(ana, 'email', 'Ana@New.example.org')?.emails).toEqual([
      'ana@new.example.org',
      'ana@example.org',
    ])
  })

  it('is nothing new where it is what is known, however it is written, or is none', () => {
    for (const [asked, answer] of [
      ['phone', '+351-912-000-000'],
      ['phone', ''],
      ['phone', undefined],
      ['email', 'ANA@example.org '],
      ['email', 'no address'],
      ['short', '+351 913'],
    ] as const)
      expect(corrected(ana, asked, answer)).toBeUndefined()
  })
})
