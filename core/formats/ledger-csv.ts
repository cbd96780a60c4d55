import type { LedgerLine } from '../ledger/ledger.ts'
import { formatInstant } from '../time/index.ts'
import { csvOf } from './csv.ts'

/** A line of the ledger with whose it is. */
export interface LedgerRow extends LedgerLine {
  name: string
  service: string
  currency: string
}

/**
 * The ledger as a table (RFC 4180): what is owed counts up, what was paid down. Amounts are in the currency's unit with
 * its decimals. Fields that a spreadsheet would take for a formula begin with an apostrophe.
 * @param decimalsOf the decimals of a currency (ISO 4217)
 */
export const ledgerCsv = (rows: readonly LedgerRow[], decimalsOf: (currency: string) => number): string =>
  csvOf(
    ['at', 'booking', 'name', 'service', 'what', 'amount', 'currency', 'way', 'text'],
    rows.map(({ at, booking, name, service, what, amount, currency, way = '', text = '' }) => {
      const decimals = decimalsOf(currency)
      // A number, not a text: a sum below nothing must stay one.
      const said = Number((amount / 10 ** decimals).toFixed(decimals))
      return [formatInstant(at), booking, name, service, what, said, currency, way, text]
    }),
  )
