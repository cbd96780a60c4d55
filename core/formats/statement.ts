import { XMLParser } from 'fast-xml-parser'
import Papa from 'papaparse'
import { plainAccount } from '../ledger/account-number.ts'
import type { Minor } from '../money/rounding.ts'
import { plainLetters } from '../people/index.ts'
import { BadData } from '../schemas/bad-data.ts'
import { sha256Hex } from '../terms/fingerprint.ts'
import { date, type LocalDate } from '../time/index.ts'

/** Money that has come in, as a bank tells it. */
export interface StatementEntry {
  /** Known by it however often the statement is opened. */
  source: string
  on: LocalDate
  amount: Minor
  currency: string
  /** Who has sent it. */
  name: string
  /** What was written with it, a structured reference first. */
  text: string
}

/** The largest statement that is read, in characters. */
const LARGEST = 8_000_000

const bad = (message: string): BadData => new BadData('The statement', [{ path: '', message }])

type Node = { [key: string]: unknown }
const many = (value: unknown): Node[] =>
  (Array.isArray(value) ? value : value === undefined || value === '' ? [] : [value]) as Node[]
/** What stands at a path of elements, or nothing. */
function at(node: unknown, ...path: string[]): unknown {
  let here: unknown = node
  for (const key of path) {
    const first = Array.isArray(here) ? here[0] : here
    here = typeof first === 'object' && first !== null ? (first as Node)[key] : undefined
  }
  return here
}
const textOf = (value: unknown): string => {
  if (typeof value === 'string') return value.trim()
  if (typeof value === 'object' && value !== null && '#text' in value) return String(value['#text']).trim()
  return ''
}

/** An amount as the standards write it, "12.30", in minor units. @throws BadData */
function minorOf(written: string, decimals: number): Minor {
  const match = /^\s*(\d{1,15})(?:[.,](\d{1,5}))?\s*$/.exec(written)
  if (!match) throw bad(`“${written}” is not an amount.`)
  const fraction = (match[2] ?? '').padEnd(decimals, '0')
  if (/[1-9]/.test(fraction.slice(decimals))) throw bad(`“${written}” has more decimals than the currency.`)
  return Number(`${match[1]}${fraction.slice(0, decimals)}`)
}

/**
 * The credits of a bank statement in ISO 20022 (camt.053, of any version): booked ones, each payment of a batch by
 * itself.
 * @param decimalsOf the decimals of a currency (ISO 4217)
 * @throws BadData when it is none
 */
export function camtEntries(xml: string, decimalsOf: (currency: string) => number): StatementEntry[] {
  if (xml.length > LARGEST) throw bad('It is larger than a statement can be.')
  // A statement needs no entities of its own; one that brings some means no good.
  if (/<!DOCTYPE/i.test(xml)) throw bad('It holds a document type, which no statement has.')
  let document: unknown
  try {
    document = new XMLParser({
      ignoreAttributes: false,
      parseTagValue: false,
      parseAttributeValue: false,
      removeNSPrefix: true,
    }).parse(xml)
  } catch {
    throw bad('It is not a statement that can be read (camt.053).')
  }
  const statements = many(at(document, 'Document', 'BkToCstmrStmt', 'Stmt'))
  if (statements.length === 0) throw bad('It is not a statement in ISO 20022 (camt.053).')
  return statements.flatMap((statement, s) =>
    many(statement.Ntry).flatMap((entry, e): StatementEntry[] => {
      if (textOf(entry.CdtDbtInd) !== 'CRDT' || textOf(entry.RvslInd) === 'true') return []
      const status = textOf(entry.Sts) || textOf(at(entry, 'Sts', 'Cd'))
      if (status && status !== 'BOOK') return []
      const on = (textOf(at(entry, 'BookgDt', 'Dt')) || textOf(at(entry, 'BookgDt', 'DtTm'))).slice(0, 10)
      const details = many(at(entry, 'NtryDtls', 'TxDtls'))
      return (details.length > 0 ? details : [{}]).map((detail, d) => {
        const amount =
          details.length > 1
            ? (at(detail, 'Amt') ?? at(detail, 'AmtDtls', 'TxAmt', 'Amt') ?? entry.Amt)
            : entry.Amt
        const currency = String(at(amount, '@_Ccy') ?? '')
        const reference = many(at(detail, 'RmtInf', 'Strd'))
          .map((strd) => textOf(at(strd, 'CdtrRefInf', 'Ref')))
          .filter(Boolean)
        const words = many(at(detail, 'RmtInf', 'Ustrd')).map(textOf)
        const bank = textOf(at(detail, 'Refs', 'AcctSvcrRef')) || textOf(entry.AcctSvcrRef)
        const name =
          textOf(at(detail, 'RltdPties', 'Dbtr', 'Nm')) ||
          textOf(at(detail, 'RltdPties', 'Dbtr', 'Pty', 'Nm'))
        const text = [...reference, ...words].join(' ')
        const value = minorOf(textOf(amount), decimalsOf(currency))
        // Where the bank names an entry, that is its name; else what it says, and which of its like it is.
        const source = bank ? `${bank} ${d}` : sha256Hex(JSON.stringify([s, e, d, on, value, name, text]))
        return { source: source.slice(0, 200), on: date(on), amount: value, currency, name, text }
      })
    }),
  )
}

/** Which column of a table holds what, by its place from nought. */
export interface StatementColumns {
  date: number
  amount: number
  name?: number
  text: number
}

/** A statement as a table, its first row its heading. @throws BadData when it is none */
export function statementTable(csv: string): { head: string[]; rows: string[][] } {
  if (csv.length > LARGEST) throw bad('It is larger than a statement can be.')
  const { data } = Papa.parse<string[]>(csv.trim(), { skipEmptyLines: 'greedy' })
  const [head, ...rows] = data
  if (!head || head.length < 3 || rows.length === 0)
    throw bad('It is not a table with a heading, and a row for each entry.')
  return { head, rows }
}

/** A day as tables write it: 2026-11-24, 24.11.2026, 24/11/2026. */
function dayIn(written: string): LocalDate | undefined {
  const iso = /^(\d{4})-(\d{2})-(\d{2})/.exec(written.trim())
  const local = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/.exec(written.trim())
  try {
    if (iso) return date(`${iso[1]}-${iso[2]}-${iso[3]}`)
    if (local) return date(`${local[3]}-${local[2]!.padStart(2, '0')}-${local[1]!.padStart(2, '0')}`)
  } catch {
    return undefined
  }
  return undefined
}

/** An amount as tables write it: 1,234.50, 1.234,50, 12.5; nothing where it is none, or goes out. */
function amountIn(written: string, decimals: number): Minor | undefined {
  const text = written.replaceAll(/[\s\u00a0’'+]|[A-Z]{3}|[€$£]/g, '')
  const match = /^(\d[\d.,]*)$/.exec(text)
  if (!match) return undefined
  const last = Math.max(text.lastIndexOf('.'), text.lastIndexOf(','))
  const isDecimal = last >= 0 && text.length - last - 1 <= decimals
  const plain = isDecimal
    ? `${text.slice(0, last).replaceAll(/[.,]/g, '')}.${text.slice(last + 1)}`
    : text.replaceAll(/[.,]/g, '')
  const value = Math.round(Number(plain) * 10 ** decimals)
  return Number.isSafeInteger(value) && value > 0 ? value : undefined
}

/** The credits of a table; rows that hold none are left out. */
export const tableEntries = (
  rows: readonly string[][],
  { date: day, amount, name, text }: StatementColumns,
  currency: string,
  decimals: number,
): StatementEntry[] => {
  const seen = new Map<string, number>()
  return rows.flatMap((row): StatementEntry[] => {
    const on = dayIn(row[day] ?? '')
    const value = amountIn(row[amount] ?? '', decimals)
    if (on === undefined || value === undefined) return []
    const entry = {
      on,
      amount: value,
      currency,
      name: name === undefined ? '' : (row[name] ?? '').trim(),
      text: (row[text] ?? '').trim(),
    }
    const like = JSON.stringify(entry)
    const nth = (seen.get(like) ?? 0) + 1
    seen.set(like, nth)
    return [{ source: sha256Hex(`${like} ${nth}`), ...entry }]
  })
}

/** Something that is still to be paid, with what a transfer for it carries. */
export interface Open {
  booking: string
  name: string
  reference: string
  open: Minor
  currency: string
}

/** What an entry may be for: surely, perhaps and why it is not sure, or nothing that is known. */
export interface Matched {
  entry: StatementEntry
  /** Noted before. */
  noted: boolean
  sure?: string
  perhaps: { booking: string; why: 'amount' | 'reference' | 'name' }[]
}

const letters = (text: string): string =>
  plainLetters(text)
    .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()

/**
 * What each entry is for. Sure is the reference of what is open with just its amount; with another amount, or by the
 * name and amount alone, it is a doubt to be looked at.
 * @param noted sources that have been noted before
 */
export function matchEntries(
  entries: readonly StatementEntry[],
  open: readonly Open[],
  noted: ReadonlySet<string>,
): Matched[] {
  return entries.map((entry) => {
    if (noted.has(entry.source)) return { entry, noted: true, perhaps: [] }
    const text = plainAccount(entry.text)
    const same = open.filter(({ currency }) => currency === entry.currency)
    const named = same.filter(({ reference }) => text.includes(reference))
    const exact = named.filter((one) => one.open === entry.amount)
    if (exact.length === 1) return { entry, noted: false, sure: exact[0]!.booking, perhaps: [] }
    if (named.length > 0)
      return { entry, noted: false, perhaps: named.map(({ booking }) => ({ booking, why: 'reference' })) }
    const words = new Set(letters(`${entry.name} ${entry.text}`).split(' '))
    const alike = same.filter((one) =>
      letters(one.name)
        .split(' ')
        .every((word) => words.has(word)),
    )
    const both = alike.filter((one) => one.open === entry.amount)
    const found = both.length > 0 ? both : alike
    const why = both.length > 0 ? ('name' as const) : ('amount' as const)
    return { entry, noted: false, perhaps: found.slice(0, 5).map(({ booking }) => ({ booking, why })) }
  })
}
