import type { LinkView } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { clocksNamed, momentAt } from '../parts/clocks.ts'
import { say } from '../parts/say.ts'

/** Invoices, line by line. */
export function MyInvoices({ of }: { of: readonly Pick<LinkView, 'invoices' | 'currency' | 'clocks'>[] }) {
  const all = of.flatMap(({ invoices = [], currency, clocks: names }) => {
    const clocks = clocksNamed(names)
    return invoices.map((invoice) => ({ ...invoice, currency, clocks }))
  })
  if (all.length === 0) return null
  return (
    <section className="sheet mt-4 p-5">
      <h2>{say('my.invoices')}</h2>
      {all.map(({ number, at, lines, total, tax, corrects, text, currency, clocks }) => (
        <details key={number} className="mt-2">
          <summary className="cursor-pointer font-semibold">
            {corrects
              ? say('my.invoice-back', { number, corrects, when: momentAt(at, clocks) })
              : say('my.invoice', { number, when: momentAt(at, clocks) })}
          </summary>
          {text && <p className="mt-1">{text}</p>}
          <dl className="figures mt-1 grid gap-1">
            {lines.map((line, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: an invoice never changes
              <div key={i} className="flex justify-between gap-4">
                <dt className="min-w-0 wrap-anywhere">
                  {line.quantity === 1
                    ? line.name
                    : say('summary.times', { quantity: line.quantity, name: line.name })}
                </dt>
                <dd>{money(line.amount, currency)}</dd>
              </div>
            ))}
            <div className="flex justify-between gap-4 border-t border-line pt-1 font-bold">
              <dt>{say('summary.total')}</dt>
              <dd>{money(total, currency)}</dd>
            </div>
            {tax && (
              <div className="flex justify-between gap-4 text-soft">
                <dt>{say('my.invoice-tax', { name: tax.name, rate: tax.rate / 100 })}</dt>
                <dd>{money(tax.amount, currency)}</dd>
              </div>
            )}
          </dl>
        </details>
      ))}
    </section>
  )
}
