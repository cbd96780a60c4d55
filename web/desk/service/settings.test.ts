import 'fake-indexeddb/auto'
import { checkPractice, SERVICE_SETTINGS, type Service } from '@acolhida/core/practice'
import { letIn, practice as practiceSchema } from '@acolhida/core/schemas'
import { clockTyped, date, duration, parseInstant } from '@acolhida/core/time'
import { demoPractice } from '@acolhida/demo/practice'
import { describe, expect, it } from 'vitest'
import { amount, durationTyped, type Setting, typedOf, wholeTyped, withTyped } from '../settings/setting.ts'
import { FILLING } from '../waiting/fill-settings.ts'
import { SHOWN, WHAT } from './what.ts'
import { whenFields } from './when.ts'
import { whomFields } from './whom.ts'

const practice = demoPractice(parseInstant('2026-11-24T11:00Z'))
const FIELDS = [...WHAT, ...SHOWN, ...whenFields(date('2026-11-24')), ...whomFields(practice), ...FILLING]
const field = (label: string): Setting<Service> => FIELDS.find((setting) => setting.label === label)!
const service = practice.services.find((service) => service.id === 'voice-assessment')!
const typed = (label: string, text: string, from: Service = service): Service =>
  withTyped(field(label), from, text, 2)

describe('the settings of a service', () => {
  it('come back unchanged when what is shown is typed again', () => {
    for (const service of practice.services) {
      for (const setting of FIELDS) {
        if (setting.show && !setting.show(service)) continue
        // Choosing a kind anew begins it afresh; a switch that is off may stand as left out.
        if (['How far ahead', 'Starts'].includes(setting.label) || setting.is === 'switch') continue
        const again = withTyped(setting, service, typedOf(setting, service, 2), 2)
        expect(again, `${service.id}: ${setting.label}`).toEqual(service)
      }
    }
  })

  it('give services that can be published, whichever option is chosen', () => {
    for (const setting of FIELDS) {
      for (const option of setting.is === 'choice' ? setting.options : []) {
        const changed = withTyped(setting, service, option.value, 2)
        const next = {
          ...practice,
          services: practice.services.map((other) => (other.id === service.id ? changed : other)),
        }
        expect(() => letIn(practiceSchema, next, 'It'), `${setting.label}: ${option.name}`).not.toThrow()
        expect(checkPractice(next).filter((fault) => fault.grade === 'error')).toEqual([])
      }
    }
  })

  it('read what is typed in many hands', () => {
    expect(typed('Notice', '36 hours').notice).toBe('PT36H')
    expect(typed('Not before', '9h30').earliestStart).toBe('09:30')
    expect(typed('Not before', ' ', typed('Not before', '9')).earliestStart).toBeUndefined()
    expect(typed('At most a day', '').perDay).toBeUndefined()
    const fixed = typed('Starts', 'fixed')
    expect(typed('Times of day', '14:30, 9; 11.15', fixed).starts).toEqual({
      kind: 'fixed',
      times: ['09:00', '11:15', '14:30'],
    })
    expect(typed('Price', '95,5').price).toEqual({ kind: 'fixed', amount: 9_550 })
    expect(typed('Last day', '2026-12-31', typed('How far ahead', 'until')).reach).toEqual({
      kind: 'until',
      date: '2026-12-31',
    })
  })

  it('keep seasons, lower prices, least numbers and links with the service', () => {
    const only = typed('Season', 'only')
    expect(typed('From', '2027-06-01', only).season).toEqual({ on: true, from: '2027-06-01' })
    expect(typed('Season', '', only).season).toBeUndefined()
    expect(typed('Lower price', '80').price).toEqual({ kind: 'fixed', amount: 9_500, whole: 8_000 })
    expect(typed('Lower price', '', typed('Lower price', '80')).price).toEqual(service.price)
    const group = practice.services.find((service) => service.seats > 1)!
    const least = typed('At least', '3', group)
    expect(least.least).toEqual({ people: 3, by: 'PT24H' })
    expect(typed('Known', '48 hours', least).least).toEqual({ people: 3, by: 'PT48H' })
    const linked = typed('Who may book it', 'link')
    expect(linked.linkKey).toMatch(/^[A-Za-z0-9_-]{16,64}$/)
    expect(typed('Who may book it', 'invited', linked).linkKey).toBe(linked.linkKey)
  })

  it('say durations in the unit they were written in', () => {
    const shown = (iso: string) => durationTyped(duration(iso))
    expect(['P1W', 'P2D', 'PT24H', 'PT90M', 'PT2H', 'P14D', 'PT0S'].map(shown)).toEqual([
      '1 weeks',
      '2 days',
      '24 hours',
      '90 minutes',
      '2 hours',
      '2 weeks',
      '0 hours',
    ])
    expect(typed('Notice', '1 weeks').notice).toBe('P1W')
    // What takes several units stays as it was written, and can be written so.
    expect(shown('P1DT12H')).toBe('P1DT12H ISO 8601')
    expect(typed('Notice', 'P1DT12H ISO 8601').notice).toBe('P1DT12H')
    expect(() => typed('Notice', '1.5 days')).toThrow('whole number')
    expect(() => typed('Notice', 'soon ISO 8601')).toThrow('not a duration')
  })

  it('find their faults by their path, and none by one that only ends like it', () => {
    const paths = FIELDS.flatMap((setting) => setting.path ?? [])
    expect(paths).toContain('least.by')
    expect(paths.every((path) => Object.hasOwn(SERVICE_SETTINGS, path.split('.')[0]!))).toBe(true)
  })

  it('keep the amount when only the kind of price changes', () => {
    expect(typed('What it costs', 'hourly').price).toEqual({ kind: 'hourly', rate: 9_500 })
  })

  it.each([
    [() => wholeTyped('1.5'), 'Please write a whole number.'],
    [() => wholeTyped('0', 1), 'Please write a whole number from 1 on.'],
    [() => amount('dear', 2), 'Please write an amount, as 95.00.'],
    [() => clockTyped('noon'), '“noon” is not a time of day; write it as 9:30.'],
    [
      () => typed('At most a day', '0'),
      'With a limit of 0 nobody can ever book this. Leave it empty for no limit.',
    ],
  ])('say what can not be used', (work, message) => {
    expect(work).toThrow(message)
  })
})
