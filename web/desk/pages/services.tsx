import { money } from '@acolhida/core/money'
import { checkPractice, type Practice, type Service, serviceOf } from '@acolhida/core/practice'
import { duration } from '@acolhida/core/time'
import { Link, useParams } from 'react-router'
import { changePractice } from '../data/change.ts'
import { db } from '../data/database.ts'
import { useDesk } from '../data/live.ts'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Switch } from '../parts/switch.tsx'
import { currencyOf } from '../parts/words.ts'

const APPROVAL = [
  { value: 'ask', name: 'Ask me' },
  { value: 'unsure', name: 'Ask me when unsure' },
  { value: 'straight', name: 'Straight in' },
]

const withService = (practice: Practice, id: string, part: Partial<Service>): Practice => ({
  ...practice,
  services: practice.services.map((one) => (one.id === id ? { ...one, ...part } : one)),
})

const whole = (typed: string, least = 0): number => {
  const value = Number(typed)
  if (typed.trim() === '' || !Number.isInteger(value) || value < least)
    throw new Error(`Please write a whole number${least > 0 ? ` from ${least} on` : ''}.`)
  return value
}

function priceLine(practice: Practice, service: Service): string {
  const currency = currencyOf(practice.profile.currency)
  if (service.price.kind === 'free') return 'free of charge'
  return service.price.kind === 'hourly'
    ? `${money(service.price.rate, currency)} an hour`
    : money(service.price.amount, currency)
}

/** What is offered. */
export function Services() {
  const { practice } = useDesk()
  const faults = checkPractice(practice)
  return (
    <SettingsPage title="Services" line="What can be booked at your door.">
      <ul className="grid max-w-[760px] gap-3">
        {practice.services.map((service, i) => (
          <li key={service.id} className="sheet flex items-center justify-between gap-4 p-4">
            <div>
              <h2>
                <Link to={`/services/${service.id}`} className="underline-offset-3 hover:underline">
                  {service.name}
                </Link>
              </h2>
              <p className="mt-0.5 text-[14px] text-soft">
                {service.minutes} min · {priceLine(practice, service)} ·{' '}
                {service.seats > 1 ? `${service.seats} seats` : 'for one'} ·{' '}
                {service.bookableBy === 'invited' ? 'for invited people' : 'for everyone'}
              </p>
              {faults
                .filter((fault) => fault.path.startsWith(`services[${i}].`))
                .map((fault) => (
                  <p key={fault.path + fault.message} className="mt-1 text-[14px] font-semibold text-clay">
                    {fault.message}
                  </p>
                ))}
            </div>
            <span className={`tag ${service.on ? 'tag-fits' : 'tag-closed'}`}>
              {service.on ? 'at the door' : 'off the door'}
            </span>
          </li>
        ))}
      </ul>
    </SettingsPage>
  )
}

/** One service, with what can be changed of it so far. */
export function ServicePage() {
  const { practice } = useDesk()
  const { id = '' } = useParams()
  const service = serviceOf(practice, id)
  if (!service) {
    return (
      <SettingsPage title="This service is not here" line="">
        <Link className="way" to="/services">
          See all services
        </Link>
      </SettingsPage>
    )
  }
  const { price } = service
  const { code, decimals } = currencyOf(practice.profile.currency)
  const amount = price.kind === 'free' ? 0 : price.kind === 'hourly' ? price.rate : price.amount
  const set = (part: (typed: string) => Partial<Service>) => (p: Practice, typed: string) =>
    withService(p, id, part(typed))
  return (
    <SettingsPage title={service.name} line="Your door follows at once.">
      <div className="grid max-w-[980px] gap-5 lg:grid-cols-2">
        <section className="sheet grid h-fit gap-4 p-5">
          <h2>What it is</h2>
          <SavedField
            label="Name"
            what="the name of a service"
            value={service.name}
            change={set((name) => ({ name }))}
          />
          <SavedField
            label="Description"
            what="a description"
            rows={4}
            value={service.description}
            change={set((description) => ({ description }))}
          />
          <Switch
            label="At the door"
            on={service.on}
            onChange={(on) =>
              changePractice(db, on ? 'a service put on the door' : 'a service taken off the door', (p) =>
                withService(p, id, { on }),
              )
            }
          />
          <div className="grid grid-cols-2 gap-4">
            <SavedField
              label="Length"
              type="number"
              suffix="min"
              what="a length"
              value={String(service.minutes)}
              change={set((typed) => ({ minutes: whole(typed, 1) }))}
            />
            {price.kind !== 'free' && (
              <SavedField
                label={price.kind === 'hourly' ? 'Price an hour' : 'Price'}
                suffix={code}
                what="a price"
                value={(amount / 10 ** decimals).toFixed(decimals)}
                change={set((typed) => {
                  const value = Math.round(Number(typed.replace(',', '.')) * 10 ** decimals)
                  if (typed.trim() === '' || !Number.isFinite(value) || value < 0)
                    throw new Error('Please write an amount, as 95.00.')
                  return {
                    price: price.kind === 'hourly' ? { ...price, rate: value } : { ...price, amount: value },
                  }
                })}
              />
            )}
          </div>
        </section>
        <section className="sheet grid h-fit gap-4 p-5">
          <h2>When and for whom</h2>
          <div className="grid grid-cols-2 gap-4">
            <SavedField
              label="Kept clear before"
              type="number"
              suffix="min"
              what="time kept clear"
              value={String(service.clearBefore)}
              change={set((typed) => ({ clearBefore: whole(typed) }))}
            />
            <SavedField
              label="Kept clear after"
              type="number"
              suffix="min"
              what="time kept clear"
              value={String(service.clearAfter)}
              change={set((typed) => ({ clearAfter: whole(typed) }))}
            />
            {service.starts.kind === 'every' && (
              <SavedField
                label="A start every"
                type="number"
                suffix="min"
                what="the starts"
                value={String(service.starts.minutes)}
                change={set((typed) => ({ starts: { kind: 'every', minutes: whole(typed, 1) } }))}
              />
            )}
            <SavedField
              label="Notice"
              suffix="hours"
              type="number"
              what="the notice"
              value={String(noticeHours(service))}
              change={set((typed) => ({ notice: duration(`PT${whole(typed)}H`) }))}
            />
          </div>
          <SavedField
            label="New people"
            what="who is asked about"
            value={service.approval.new}
            options={APPROVAL}
            change={set((typed) => ({
              approval: { ...service.approval, new: typed as Service['approval']['new'] },
            }))}
          />
          <SavedField
            label="People you know"
            what="who is asked about"
            value={service.approval.known}
            options={APPROVAL}
            change={set((typed) => ({
              approval: { ...service.approval, known: typed as Service['approval']['known'] },
            }))}
          />
        </section>
      </div>
    </SettingsPage>
  )
}

/** The notice in whole hours, as it is typed here; days count as 24. */
function noticeHours(service: Service): number {
  const [, days = '0', hours = '0'] = /^P(?:(\d+)D)?(?:T(\d+)H)?$/.exec(service.notice) ?? []
  return Number(days) * 24 + Number(hours)
}
