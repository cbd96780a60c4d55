import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import { letIn, person as personSchema } from '../schemas/index.ts'
import { askCardReader, CARDS, type CardVerdicts, cardReaderIsHere } from '../tests/ask-readers.ts'
import { ownCard, ownReading } from '../tests/card-cases.ts'
import type { LocalDate } from '../time/index.ts'
import {
  type Arrival,
  cardOf,
  guessColumns,
  isPacked,
  NoPeople,
  peopleOfTable,
  readCards,
  readPeopleTable,
  sift,
} from './index.ts'
import { LARGEST_UNPACKED, readPeopleSheet } from './people-sheet.ts'

const today = '2026-11-24' as LocalDate
let n = 0
const among = (known: Record<string, string> = {}) => ({
  ...{ known: (email: string) => known[email], today, batch: 'moved-in' },
  ids: () => String(++n).padStart(8, '0'),
})
const arrival = (change: Partial<Arrival> = {}): Arrival => ({
  ...{ row: 2, name: 'Ana Prova', emails: ['ana@example.org'], phone: '', pronouns: '', birthday: '' },
  ...{ stage: '', cameFrom: '', tags: [], note: '' },
  ...change,
})

describe('a table', () => {
  it('is read by its headings, whatever stands between the columns, with line breaks in quotes (RFC 4180)', () => {
    const text =
      '\uFEFFVorname;Last name;E-mail;Telemóvel;Date of birth;Notes;Source;Shoe size\r\n' +
      'Ana;Prova;ana@example.org;+351 912;12/04/1985;"two\nlines; and a ""quote""";A friend;38\r\n\r\n'
    const table = readPeopleTable(text)
    const columns = guessColumns(table.headings)
    expect(columns).toEqual([
      undefined,
      'family',
      'email',
      'phone',
      'birthday',
      'note',
      'cameFrom',
      undefined,
    ])
    columns[0] = 'given'
    expect(peopleOfTable(table, columns)).toEqual([
      {
        ...{ row: 2, name: 'Ana Prova', emails: ['ana@example.org'], phone: '+351 912', pronouns: '' },
        ...{
          birthday: '12/04/1985',
          stage: '',
          cameFrom: 'A friend',
          tags: [],
          note: 'two\nlines; and a "quote"',
        },
      },
    ])
  })

  it('is refused with a sentence where there is nobody in it, or too many', () => {
    for (const text of ['', '\n\n', 'name,email\n']) expect(() => readPeopleTable(text)).toThrow(NoPeople)
    expect(() => readPeopleTable(`name\n${'x\n'.repeat(20_001)}`)).toThrow(/20,001 lines.*20,000/)
  })
})

/** Written by LibreOffice Calc 7.4 from a table of these people. */
const WORKBOOK = new Uint8Array(readFileSync(new URL('./fixtures/people.xlsx', import.meta.url)))

describe('a workbook', () => {
  it('is read as a table: its first sheet, dates as dates, without its empty lines', async () => {
    expect(isPacked(WORKBOOK)).toBe(true)
    const { headings, rows } = await readPeopleSheet(WORKBOOK)
    expect(headings).toEqual(['Name', 'E-mail', 'Phone', 'Birthday', 'Groups', 'Notes'])
    expect(rows).toEqual([
      [
        'Ana Prova',
        'ana.prova@example.org',
        '+351912000000',
        '1985-04-12',
        'choir;early',
        'Two lines\nof a note',
      ],
      ['Çelik Ötzi', 'celik@example.org', '', '1990-12-31', '', ''],
      ['Nobody', 'not an address', '', '', '', ''],
    ])
    const { come, wrong } = sift(peopleOfTable({ headings, rows }, guessColumns(headings)), among())
    expect(come.map(({ name, birthday }) => [name, birthday])).toEqual([
      ['Ana Prova', '1985-04-12'],
      ['Çelik Ötzi', '1990-12-31'],
    ])
    expect(wrong).toHaveLength(1)
  })

  it('is refused with a sentence where it is none, is torn, or would swell without end', async () => {
    const packed = (files: Record<string, Uint8Array>) => readPeopleSheet(zipSync(files))
    await expect(readPeopleSheet(WORKBOOK.slice(0, 2_000))).rejects.toThrow(NoPeople)
    await expect(packed({ 'letter.xml': strToU8('<a/>') })).rejects.toThrow(/can’t be read/)
    await expect(
      packed({ 'xl/worksheets/sheet1.xml': new Uint8Array(LARGEST_UNPACKED + 1) }),
    ).rejects.toThrow(/larger than 200 MB/)
    // One stray cell at the end of a sheet would fill millions before it.
    const files = unzipSync(WORKBOOK)
    const sheet = 'xl/worksheets/sheet1.xml'
    const stray = '<row r="1048576"><c r="XFD1048576" t="n"><v>1</v></c></row></sheetData>'
    await expect(
      packed({ ...files, [sheet]: strToU8(strFromU8(files[sheet]!).replace('</sheetData>', stray)) }),
    ).rejects.toThrow(/far off/)
    // Broken anywhere, it is refused, or read as a table.
    for (let at = 0; at < WORKBOOK.length; at += 37) {
      const broken = WORKBOOK.slice()
      broken[at]! ^= 0xff
      const read = await readPeopleSheet(broken).catch((error) => error)
      expect(read instanceof NoPeople || Array.isArray(read.headings)).toBe(true)
    }
  })
})

describe('taking people in is tried first', () => {
  it('of 10,000 with 300 bad ones those are listed with row and reason, and the rest would come in', () => {
    const bad = [{ name: '' }, { emails: ['no address'] }, { phone: 'call me' }, { birthday: '31/02/1990' }]
    const all = Array.from({ length: 10_000 }, (_, i) => {
      const usual = arrival({ row: i + 2, name: `Person ${i}`, emails: [`p${i}@example.org`] })
      return i % 33 === 0 && i < 33 * 300 ? { ...usual, ...bad[(i / 33) % bad.length] } : usual
    })
    const { come, wrong, here, twice } = sift(all, among())
    expect([come.length, wrong.length, here.length, twice.length]).toEqual([9_700, 300, 0, 0])
    expect(wrong.slice(0, 4)).toEqual([
      { row: 2, what: 'p0@example.org', why: 'There is no name.' },
      { row: 35, what: 'Person 33', why: '“no address” is no mail address.' },
      { row: 68, what: 'Person 66', why: '“call me” is no phone number.' },
      { row: 101, what: 'Person 99', why: expect.stringMatching(/^Birthday: “31\/02\/1990” is not a date/) },
    ])
    for (const person of come.slice(0, 50)) expect(letIn(personSchema, person, 'it')).toEqual(person)
  })

  it('leaves who is here as they are, and takes who stands there twice once, with both addresses', () => {
    const { come, here, twice } = sift(
      [
        arrival({ row: 2, emails: ['Known@Example.org', 'other@example.org'] }),
        arrival({ row: 3, name: 'Bo', emails: ['bo@example.org'] }),
        arrival({ row: 4, name: 'Bo Prova', emails: ['BO@example.org', 'bo@work.example'], phone: '+351 9' }),
        arrival({ row: 5, name: 'Bo', emails: ['bo@work.example'] }),
      ],
      among({ 'known@example.org': 'Somebody' }),
    )
    expect(here).toEqual([{ row: 2, name: 'Ana Prova', email: 'known@example.org', known: 'Somebody' }])
    expect(come).toMatchObject([
      { name: 'Bo', emails: ['bo@example.org', 'bo@work.example'], phone: '+351 9', movedIn: 'moved-in' },
    ])
    expect(twice).toEqual([
      { row: 4, name: 'Bo Prova', first: 3 },
      { row: 5, name: 'Bo', first: 3 },
    ])
  })

  it('gives an address to one person alone, also where a line has those of two', () => {
    const { come, twice } = sift(
      [
        arrival({ row: 2, name: 'Ana', emails: ['a@example.org'] }),
        arrival({ row: 3, name: 'Bo', emails: ['b@example.org'] }),
        arrival({ row: 4, name: 'Both', emails: ['a@example.org', 'b@example.org', 'c@example.org'] }),
      ],
      among(),
    )
    expect(come.map(({ emails }) => emails)).toEqual([['a@example.org', 'c@example.org'], ['b@example.org']])
    expect(twice).toEqual([{ row: 4, name: 'Both', first: 2 }])
  })

  it('lets nobody in whom the desk could not keep, whatever the file holds', () => {
    const text = fc.oneof(
      fc.string({ unit: 'binary', maxLength: 30 }),
      fc.constantFrom(
        '',
        'Ana',
        'a@b.org',
        'ana@example.org',
        'bo@example.org',
        'c@example.org',
        '1990-01-01',
        '--02-03',
        '+351 912',
        '\u202eevil',
      ),
    )
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            row: fc.nat(),
            name: text,
            emails: fc.array(text, { maxLength: 3 }),
            ...{ phone: text, pronouns: text, birthday: text, stage: text, cameFrom: text, note: text },
            tags: fc.array(text, { maxLength: 4 }),
          }),
          { maxLength: 6 },
        ),
        (list) => {
          const { come, here, twice, wrong } = sift(list, among({ 'a@b.org': 'B' }))
          expect(come.length + here.length + twice.length + wrong.length).toBe(list.length)
          for (const person of come) letIn(personSchema, person, 'it')
          const mails = come.flatMap(({ emails }) => emails)
          expect(new Set(mails).size).toBe(mails.length)
        },
      ),
      { numRuns: 1_000 },
    )
  })
})

describe('cards', () => {
  it('are read as RFC 6350 has them, and those of version 3 (its example of section 8, with an address more)', () => {
    const card = (version: string) =>
      [
        ...['BEGIN:VCARD', `VERSION:${version}`, 'FN:Simon Perreault', 'N:Perreault;Simon;;;ing. jr,M.Sc.'],
        ...['BDAY:--0203', 'ANNIVERSARY:20090808T1430-0500', 'GENDER:M', 'LANG;PREF=1:fr', 'LANG;PREF=2:en'],
        'ADR;TYPE=work:;Suite D2-630;2875 Laurier;Quebec;QC;G1V 2M2;Canada',
        'TEL;VALUE=uri;TYPE="work,voice";PREF=1:tel:+1-418-656-9254;ext=102',
        ...['EMAIL;TYPE=work:simon.perreault@example.ca', 'EMAIL:simon@example.org'],
        ...['CATEGORIES:choir,early', 'NOTE:two\\nlines\\, and', '  more', 'END:VCARD', ''],
      ].join('\r\n')
    const { arrivals, unread } = readCards(card('4.0') + card('3.0') + card('2.1'))
    expect(unread).toEqual([{ row: 3, what: 'Simon Perreault', why: expect.stringContaining('2.1') }])
    for (const one of arrivals)
      expect(one).toMatchObject({
        ...{ name: 'Simon Perreault', emails: ['simon.perreault@example.ca', 'simon@example.org'] },
        ...{ phone: '+1-418-656-9254', tags: ['choir', 'early'], note: 'two\nlines, and more' },
      })
    const { come, twice } = sift(arrivals, among())
    expect([come.length, twice.length, come[0]?.birthday]).toEqual([1, 1, undefined])
    expect(() => readCards('BEGIN:VCALENDAR\r\nEND:VCALENDAR')).toThrow(NoPeople)
  })

  it('that are damaged keep out no other', () => {
    const good = 'BEGIN:VCARD\nVERSION:4.0\nFN:Ana\nEMAIL:ana@example.org\nEND:VCARD\n'
    const { arrivals, unread } = readCards(
      `${good}BEGIN:VCARD\nVERSION:4.0\nno colon here\nEND:VCARD\n${good}`,
    )
    expect([arrivals.length, unread.map(({ row }) => row)]).toEqual([2, [2]])
  })

  it('that are written come back as they were, in lines of at most 75 bytes', () => {
    const names = fc
      .string({ unit: 'grapheme', minLength: 1, maxLength: 80 })
      .filter((name) => name.trim() === name && !/[\p{C}\\]/u.test(name))
    fc.assert(
      fc.property(names, fc.constantFrom(undefined, '1985-04-12'), (name, birthday) => {
        const text = cardOf({
          ...{ id: 'p', name, emails: ['a@example.org', 'b@example.org'], phone: '+351 912', invited: [] },
          ...{ blocked: false, note: 'A secret of mine', pronouns: 'they/them' },
          ...(birthday ? { birthday: birthday as LocalDate } : {}),
        })
        expect(text).not.toContain('secret')
        for (const line of text.split('\r\n'))
          expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75)
        const [read] = readCards(text).arrivals
        expect(read).toMatchObject({
          ...{ name, emails: ['a@example.org', 'b@example.org'], phone: '+351 912', pronouns: 'they/them' },
          birthday: birthday ?? '',
        })
        expect(new ICAL.Component(ICAL.parse(text)).getFirstPropertyValue('version')).toBe('4.0')
      }),
      { numRuns: 300 },
    )
  })
})

// Cards read and written by vobject 0.9.6.1 (Debian 12), kept as it gave them; where it is installed it is asked once more.
describe('cards of people with whatever name, as another program has them', () => {
  const { read, written } = JSON.parse(readFileSync(CARDS, 'utf8')) as CardVerdicts

  it('are read there as they are meant', () => {
    expect(read.length).toBeGreaterThan(100)
    for (const { verdict, ...meant } of read) expect(verdict, ownCard(meant)).toEqual(meant)
  })

  it('and read here as they are meant there', () => {
    expect(written.length).toBeGreaterThan(100)
    for (const { of, card } of written) expect(ownReading(card), card).toEqual(of)
  })

  it.runIf(cardReaderIsHere())('are still read and written so by that program', () => {
    const some = read.filter((_, i) => i % 4 === 0).map(({ verdict: _, ...meant }) => meant)
    const wanted = written.filter((_, i) => i % 4 === 0)
    const said = askCardReader(
      some,
      wanted.map(({ of }) => of),
    )
    for (const { verdict, ...meant } of said.read) expect(verdict).toEqual(meant)
    expect(said.written).toEqual(wanted)
  })
})
