import { writeBackup } from '@acolhida/core/formats'
import { readBackup } from '@acolhida/core/schemas'
import { parseInstant } from '@acolhida/core/time'
import { demoMonths } from '@acolhida/demo/months'
import { expect, it } from 'vitest'

it('a backup is read whatever chance has named its bookings, courses, places in line and the rest', () => {
  const months = demoMonths(parseInstant('2026-11-24T11:00Z'))
  const { bookings, lines = [], freed = [], courses = [], enquiries } = months
  const subjects = [bookings, lines, freed, courses, enquiries]
  for (const one of subjects) expect(one.length).toBeGreaterThan(0)
  const ids = new Set(subjects.flat().map(({ id }) => id))
  const odd = (_: string, value: unknown): unknown =>
    typeof value === 'string' && ids.has(value) ? `-${value}` : value
  const text = JSON.stringify(JSON.parse(writeBackup(months), odd))
  const read = readBackup(text)
  expect(read.courses?.map(({ id }) => id).sort()).toEqual(courses.map(({ id }) => `-${id}`).sort())
})
