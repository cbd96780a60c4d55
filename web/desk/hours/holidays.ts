import type { LocalDate } from '@acolhida/core/time'

export interface Holiday {
  date: LocalDate
  name: string
}

/** The library with its data is large and seldom needed, so it comes only when it is asked for. */
const load = async () => (await import('date-holidays')).default

/** Countries whose public holidays are known, by their ISO 3166 code. */
export async function countries(): Promise<{ code: string; name: string }[]> {
  const Holidays = await load()
  return Object.entries(new Holidays().getCountries('en'))
    .map(([code, name]) => ({ code, name }))
    .sort((a, b) => a.name.localeCompare(b.name))
}

/** The public holidays of a country in a year, one a date. */
export async function publicHolidays(country: string, year: number): Promise<Holiday[]> {
  const Holidays = await load()
  const found = new Holidays(country, { languages: ['en'] })
    .getHolidays(year, 'en')
    .filter((getHoliday) => getHoliday.type === 'public')
  const byDate = new Map(found.map((holiday) => [holiday.date.slice(0, 10), holiday.name]))
  return [...byDate]
    .map(([date, name]) => ({ date: date as LocalDate, name }))
    .sort((a, b) => (a.date < b.date ? -1 : 1))
}
