import type { LinkView } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { clocksNamed, momentAt } from '../parts/clocks.ts'
import { rich, say } from '../parts/say.ts'
import { WhereTo } from '../parts/where-to.tsx'
import { AtTill } from './at-till.tsx'

/** What is to be paid and when, what has come, and where a transfer goes. */
export function MyMoney({ view, secret }: { view: LinkView; secret: string }) {
  const { money: of, currency } = view
  if (!of || (of.plan.length < 2 && of.open === 0 && of.paid === 0 && !of.first && !of.back)) return null
  const clocks = clocksNamed(view.clocks)
  const asked = view.state === 'unproved' || view.state === 'waiting' || view.state === 'offered'
  return (
    <section className="sheet mt-4 p-5">
      <h2>{say(of.plan.length > 1 || of.open > 0 ? 'my.money-to-pay' : 'my.money')}</h2>
      {of.plan.length > 1 && (
        <ul className="mt-2 grid gap-0.5">
          {of.plan.map(({ amount, due }) => (
            <li key={`${due} ${amount}`}>
              {asked && due <= view.now
                ? say('my.money-once', { amount: money(amount, currency) })
                : say('my.money-line', { amount: money(amount, currency), when: momentAt(due, clocks) })}
            </li>
          ))}
        </ul>
      )}
      {of.first && (
        <p className="note mt-3 bg-sun-soft text-sun-ink">
          {view.state === 'unpaid'
            ? rich('my.money-first', {
                amount: money(of.first.amount, currency),
                until: momentAt(of.first.until, clocks),
              })
            : rich('my.money-first-later', { amount: money(of.first.amount, currency) })}
        </p>
      )}
      {of.promised !== undefined && (
        <p className="mt-2">{say('my.money-promised', { amount: money(of.promised, currency) })}</p>
      )}
      {of.paid < 0 && <p className="mt-2">{say('my.money-given', { amount: money(-of.paid, currency) })}</p>}
      {of.paid > 0 && <p className="mt-2">{say('my.money-paid', { amount: money(of.paid, currency) })}</p>}
      {of.back !== undefined && (
        <p className="mt-2">{say('my.money-came-back', { amount: money(of.back, currency) })}</p>
      )}
      {of.open > 0 && (
        <p className="mt-2 font-semibold">{say('my.money-open', { amount: money(of.open, currency) })}</p>
      )}
      {of.open < 0 && (
        <p className="mt-2 font-semibold">{say('my.money-back', { amount: money(-of.open, currency) })}</p>
      )}
      {of.byCard !== undefined && (
        <div className="mt-3">
          <AtTill view={view} secret={secret} what="pay" amount={of.byCard} />
        </div>
      )}
      {of.transfer && <WhereTo transfer={of.transfer} />}
    </section>
  )
}
