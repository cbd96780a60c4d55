import Holidays from 'date-holidays'
import { expect, it } from 'vitest'
import { countries, publicHolidays } from './holidays.ts'

it.each(['PT', 'BR', 'DE'])(
  'gives the public holidays of %s as the library’s own data has them',
  async (code) => {
    const found = await publicHolidays(code, 2027)
    const theirs = new Set(
      new Holidays(code)
        .getHolidays(2027)
        .filter((getHoliday) => getHoliday.type === 'public')
        .map((getHoliday) => getHoliday.date.slice(0, 10)),
    )
    expect(found.map((holiday) => holiday.date)).toEqual([...theirs].sort())
    expect(found.length).toBeGreaterThan(7)
    expect(found.map((holiday) => holiday.date)).toContain('2027-12-25')
  },
)

it('knows many countries by name', async () => {
  const all = await countries()
  expect(all.length).toBeGreaterThan(100)
  expect(all).toContainEqual({ code: 'PT', name: 'Portugal' })
})
