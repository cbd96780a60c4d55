import { alertFor, type OwnStep } from '@acolhida/core/messages'
import type { Alert, Practice } from '@acolhida/core/practice'
import { withMessaging } from '@acolhida/core/practice'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { Tick } from '../parts/tick.tsx'

/** What can be told to the practitioner. */
const ALERTS: readonly { step: OwnStep; name: string }[] = [
  { step: 'new-request', name: 'Somebody asks' },
  { step: 'word-due', name: 'A request is about to run out' },
  { step: 'has-lapsed', name: 'One has run out' },
  { step: 'client-cancelled', name: 'A client cancels' },
  { step: 'client-moved', name: 'A client moves' },
  { step: 'client-replied', name: 'Your question is answered' },
  { step: 'client-pleads', name: 'An exception is asked for' },
  { step: 'client-comes', name: 'A client says they will be there' },
  { step: 'not-confirmed', name: 'Nobody has answered whether they come' },
  { step: 'not-prepared', name: 'What was to be done before is not done' },
  { step: 'not-paid', name: 'What was asked for is not paid' },
]

/** What is told to the practitioner, by kind and by service: by mail, by text, by both or not at all. */
export function Alerts({ practice }: { practice: Practice }) {
  const own = practice.messaging?.own ?? {}
  const set = (step: OwnStep, way: keyof Alert, on: boolean): Promise<void> =>
    changePractice(db, 'what is told to you', (p) =>
      withMessaging(p, (one) => ({
        ...one,
        own: { ...one.own, alerts: { ...one.own?.alerts, [step]: { ...alertFor(p, step), [way]: on } } },
      })),
    )
  const quietServices = new Set(own.services)
  return (
    <div className="grid gap-4">
      <table className="w-full text-[14px]">
        <thead>
          <tr className="text-left text-soft">
            <th scope="col" className="pb-1 font-normal">
              Tell me when
            </th>
            <th scope="col" className="w-20 pb-1 font-normal">
              by mail
            </th>
            <th scope="col" className="w-20 pb-1 font-normal">
              by text
            </th>
          </tr>
        </thead>
        <tbody>
          {ALERTS.map(({ step, name }) => {
            const now = alertFor(practice, step)
            const box = (way: 'email' | 'text', label: string) => (
              <td>
                <input
                  type="checkbox"
                  className="checkbox checkbox-primary checkbox-sm"
                  aria-label={`${name}: ${label}`}
                  checked={now[way] === true}
                  onChange={(event) => void set(step, way, event.target.checked)}
                />
              </td>
            )
            return (
              <tr key={step} className="border-t border-line">
                <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                  {name}
                </th>
                {box('email', 'by mail')}
                {box('text', 'by text')}
              </tr>
            )
          })}
        </tbody>
      </table>
      <fieldset className="grid">
        <legend className="ask">Of which services</legend>
        {practice.services.map(({ id, name }) => (
          <Tick
            key={id}
            label={name}
            on={!quietServices.has(id)}
            onChange={(on) =>
              changePractice(db, 'what is told to you', (p) =>
                withMessaging(p, (one) => {
                  const others = (one.own?.services ?? []).filter((other) => other !== id)
                  return { ...one, own: { ...one.own, services: on ? others : [...others, id] } }
                }),
              )
            }
          />
        ))}
      </fieldset>
    </div>
  )
}
