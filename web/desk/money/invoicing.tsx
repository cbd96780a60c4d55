import type { Invoicing, Practice, Tax } from '@acolhida/core/practice'
import { date, dateAt, type LocalDate } from '@acolhida/core/time'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { homeZone } from '../parts/words.ts'
import { Fields } from '../settings/fields.tsx'
import { numberTyped, type Setting } from '../settings/setting.ts'

const WHAT = 'what stands on invoices'

const of =
  <K extends keyof Invoicing>(key: K, value: Invoicing[K] | undefined) =>
  (practice: Practice): Practice => {
    const { invoicing: before, ...rest } = practice
    const { [key]: _, ...others } = before ?? {}
    const next = value === undefined ? others : { ...others, [key]: value }
    return Object.keys(next).length > 0 ? { ...rest, invoicing: next } : rest
  }
const text = (
  key: 'title' | 'registration' | 'prefix' | 'address',
  label: string,
  rows?: number,
): Setting<Practice> => ({
  label,
  what: WHAT,
  is: 'text',
  empty: true,
  path: `invoicing.${key}`,
  ...(rows ? { rows } : {}),
  read: ({ invoicing }) => invoicing?.[key],
  write: (practice, value) => of(key, value?.trim() || undefined)(practice),
})

const INVOICING: readonly Setting<Practice>[] = [
  text('title', 'My title'),
  text('registration', 'Registration number'),
  text('address', 'My address', 3),
  text('prefix', 'Before the number'),
  {
    label: 'The first number',
    what: WHAT,
    is: 'whole',
    least: 1,
    empty: true,
    path: 'invoicing.first',
    help: 'Numbers go on from the last one given; one higher goes on from there.',
    read: ({ invoicing }) => invoicing?.first,
    write: (practice, first) => of('first', first)(practice),
  },
]

const withTax = (
  { profile: { tax: _, ...profile }, ...practice }: Practice,
  tax: Tax | undefined,
): Practice => ({
  ...practice,
  profile: tax ? { ...profile, tax } : profile,
})

/** A rate as it is typed, in percent. @throws Error with a sentence */
function rateTyped(typed: string): number {
  const rate = Math.round(numberTyped(typed) * 100)
  if (rate < 0 || rate > 10_000) throw new Error('A rate is from 0 to 100 %.')
  return rate
}

/** What invoices say besides, and the tax that is in the prices or comes on top. */
export function InvoicingCard({ practice }: { practice: Practice }) {
  const { tax } = practice.profile
  const rate = (p: Practice): Tax => p.profile.tax ?? { name: 'VAT', rate: 0 }
  return (
    <section className="sheet grid gap-3 p-5">
      <h2>Invoices</h2>
      <Fields settings={INVOICING} of={practice} practice={practice} change={(p, to) => to(p)} narrow />
      <div className="grid gap-3 border-t border-line pt-3">
        <SavedField
          label="Tax, as it is called"
          what="the tax"
          value={tax?.name ?? ''}
          help="Empty where you charge none. Earlier bookings keep the tax of their day."
          change={(p, typed) => withTax(p, typed.trim() ? { ...rate(p), name: typed.trim() } : undefined)}
        />
        {tax && (
          <>
            <SavedField
              label="Its rate"
              what="the tax"
              inputMode="decimal"
              suffix="%"
              value={String(tax.rate / 100)}
              change={(p, typed) => withTax(p, { ...rate(p), rate: rateTyped(typed) })}
            />
            <SavedField
              label="It is"
              what="the tax"
              value={tax.onTop ? 'top' : 'in'}
              options={[
                { value: 'in', name: 'in my prices' },
                { value: 'top', name: 'on top of them' },
              ]}
              change={(p, to) => {
                const { onTop: _, ...others } = rate(p)
                return withTax(p, to === 'top' ? { ...others, onTop: true } : others)
              }}
            />
            <LaterRates tax={tax} />
          </>
        )}
      </div>
    </section>
  )
}

/** The day on which rates change most often. */
const nextYear = (practice: Practice): LocalDate =>
  date(`${Number(dateAt(homeZone(practice), relayNow()).slice(0, 4)) + 1}-01-01`)

/** Other rates, each from its first day on. */
function LaterRates({ tax }: { tax: Tax }) {
  const later = tax.later ?? []
  const change = (
    p: Practice,
    to: (rates: NonNullable<Tax['later']>) => NonNullable<Tax['later']>,
  ): Practice => {
    const { later: before = [], ...others } = p.profile.tax ?? tax
    const next = to(before)
    return withTax(p, next.length > 0 ? { ...others, later: next } : others)
  }
  const put = (p: Practice, at: number, part: Partial<(typeof later)[number]>): Practice =>
    change(p, (rates) => rates.map((rate, n) => (n === at ? { ...rate, ...part } : rate)))
  return (
    <>
      {later.map((one, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a rate is known by its place
        <fieldset key={i} className="grid gap-2 border-t border-line pt-3">
          <legend className="sr-only">Another rate {i + 1}</legend>
          <SavedField
            label="From"
            what="the tax"
            type="date"
            value={one.from}
            change={(p, typed) => put(p, i, { from: date(typed.trim()) })}
          />
          <SavedField
            label="The rate is then"
            what="the tax"
            inputMode="decimal"
            suffix="%"
            value={String(one.rate / 100)}
            change={(p, typed) => put(p, i, { rate: rateTyped(typed) })}
          />
          <span>
            <ActButton
              className="press press-no"
              onAct={() =>
                changePractice(db, 'the tax', (p) => change(p, (rates) => rates.filter((_, n) => n !== i)))
              }
            >
              Remove this rate
            </ActButton>
          </span>
        </fieldset>
      ))}
      <span>
        <ActButton
          onAct={() =>
            changePractice(db, 'the tax', (p) =>
              change(p, (rates) => [...rates, { from: nextYear(p), rate: tax.rate }]),
            )
          }
        >
          Another rate from a day on
        </ActButton>
      </span>
    </>
  )
}
