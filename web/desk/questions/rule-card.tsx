import type { Practice } from '@acolhida/core/practice'
import {
  asksSomething,
  conditionWords,
  type DraftFault,
  type Effect,
  effectWords,
  type Rule,
  type Sheet,
} from '@acolhida/core/questions'
import type { Finding } from '@acolhida/core/questions/paths'
import { Trash2 } from 'lucide-react'
import { ActButton, Problem, useAct } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { useSortableRow } from '../parts/sortable-list.tsx'
import { currencyOf } from '../parts/words.ts'
import { amount } from '../service/fields.ts'
import { ConditionEdit } from './condition-edit.tsx'
import { changeDraft, withDraft, withRule } from './draft.ts'
import { Said } from './question-card.tsx'
import { RowHead } from './row-head.tsx'

const EFFECTS: Record<Effect['do'], string> = {
  close: 'close, with a kind text',
  look: 'I look first',
  points: 'give points',
  minutes: 'make it longer',
  item: 'add something to the price',
  tag: 'tag the person',
  deposit: 'ask a deposit',
  suggest: 'suggest another service',
  enquiry: 'ask for a message instead of a booking',
}

/** An effect of another kind, to begin with. */
function asEffect(kind: Effect['do'], practice: Practice): Effect {
  switch (kind) {
    case 'close':
      return { do: kind, message: '', services: [], enquiry: true }
    case 'look':
      return { do: kind, note: '' }
    case 'points':
      return { do: kind, points: 1 }
    case 'minutes':
      return { do: kind, minutes: 15 }
    case 'item':
      return { do: kind, name: 'Something more', price: 1_000 }
    case 'tag':
      return { do: kind, tag: 'tag' }
    case 'deposit':
      return { do: kind, amount: 1_000 }
    case 'enquiry':
      return { do: kind }
    default:
      return { do: 'suggest', service: practice.services[0]!.id }
  }
}

const anyWhole = (typed: string): number => {
  const value = Number(typed)
  if (typed.trim() === '' || !Number.isInteger(value)) throw new Error('Please write a whole number.')
  return value
}

/** One rule as a sentence: when these answers are given, this follows; opened to be changed. */
export function RuleCard({
  id,
  practice,
  sheet,
  rule,
  number,
  open,
  onOpen,
  faults,
  findings,
}: {
  id: string
  practice: Practice
  sheet: Sheet
  rule: Rule
  number: number
  open: boolean
  onOpen: (open: boolean) => void
  faults: readonly DraftFault[]
  findings: readonly Finding[]
}) {
  const { box, handle } = useSortableRow(rule.id)
  const act = useAct()
  const set = (change: (one: Rule) => Rule): void =>
    act.run(() => changeDraft(id, 'a rule', withRule(rule.id, change)))
  const around = {
    questions: sheet.questions,
    services: practice.services,
    currency: currencyOf(practice.profile.currency),
  }
  return (
    <li {...box} id={`at-${rule.id}`} className="scroll-mt-6">
      <section className="sheet p-3" aria-label={rule.name}>
        <RowHead
          what="rule"
          number={number}
          handle={handle}
          open={open}
          onOpen={onOpen}
          acts={
            <ActButton
              className="press press-no px-2"
              aria-label={`Remove rule ${number}`}
              onAct={() =>
                changeDraft(id, 'a rule removed', (now) => ({
                  ...now,
                  rules: now.rules.filter((one) => one.id !== rule.id),
                }))
              }
            >
              <Trash2 size={16} aria-hidden="true" />
            </ActButton>
          }
        >
          <span className="font-semibold">
            <span className="figures mr-2 text-soft">{number}</span>
            {rule.name}
          </span>
          <span className="block text-[14px] text-soft">
            When {conditionWords(rule.when, sheet.questions)}: <b>{effectWords(rule.effect, around)}</b>
          </span>
        </RowHead>
        {open && (
          <div className="mt-2 grid gap-3 border-t border-line pt-3">
            <SavedField
              label={`Rule ${number}`}
              what="a rule"
              value={rule.name}
              change={(p, name) =>
                withDraft(
                  p,
                  id,
                  withRule(rule.id, (one) => ({ ...one, name: name.trim() })),
                )
              }
            />
            <div>
              <p className="ask mb-1">When</p>
              <ConditionEdit
                condition={rule.when}
                questions={sheet.questions.filter(asksSomething)}
                ofRule
                onChange={(when) => set((one) => ({ ...one, when: when ?? { all: [] } }))}
              />
            </div>
            <label className="ask">
              then
              <select
                className="field mt-1"
                value={rule.effect.do}
                onChange={(event) => {
                  const effect = asEffect(event.target.value as Effect['do'], practice)
                  set((one) => ({ ...one, effect }))
                }}
              >
                {Object.entries(EFFECTS).map(([value, name]) => (
                  <option key={value} value={value}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <EffectFields id={id} practice={practice} sheet={sheet} rule={rule} />
          </div>
        )}
        <Problem of={act} />
        <Said faults={faults} findings={findings} />
      </section>
    </li>
  )
}

function EffectFields({
  id,
  practice,
  sheet,
  rule,
}: {
  id: string
  practice: Practice
  sheet: Sheet
  rule: Rule
}) {
  const { effect } = rule
  const { code, decimals } = currencyOf(practice.profile.currency)
  const act = useAct()
  const set = (part: Partial<Effect>): void =>
    act.run(() =>
      changeDraft(
        id,
        'a rule',
        withRule(rule.id, (one) => ({ ...one, effect: { ...one.effect, ...part } as Effect })),
      ),
    )
  const field = (
    label: string,
    value: string,
    read: (typed: string) => Partial<Effect>,
    more: object = {},
  ) => (
    <SavedField
      label={label}
      what="a rule"
      value={value}
      change={(p, typed) =>
        withDraft(
          p,
          id,
          withRule(rule.id, (one) => ({ ...one, effect: { ...one.effect, ...read(typed) } as Effect })),
        )
      }
      {...more}
    />
  )
  const money = (value: number): string => (value / 10 ** decimals).toFixed(decimals)
  const counted = sheet.questions.flatMap((one): { value: string; name: string }[] => {
    if (one.private) return []
    if (one.kind === 'number' || one.kind === 'scale')
      return [{ value: one.id, name: `the answer to “${one.text}”` }]
    if (one.kind !== 'items') return []
    return [
      { value: one.id, name: `all of “${one.text}”` },
      ...one.items.map((item) => ({ value: `${one.id}/${item.id}`, name: `how many “${item.text}”` })),
    ]
  })
  const times = (now: { times?: string; of?: string }) =>
    counted.length > 0 && (
      <label className="ask">
        times
        <select
          className="field mt-1"
          value={[now.times, now.of].filter(Boolean).join('/')}
          onChange={(event) =>
            act.run(() =>
              changeDraft(
                id,
                'a rule',
                withRule(rule.id, (one) => {
                  const { times: _, of: __, ...rest } = one.effect as Effect & { times?: string; of?: string }
                  const [times, of] = event.target.value.split('/')
                  const by = { ...(times ? { times } : {}), ...(of ? { of } : {}) }
                  return { ...one, effect: { ...rest, ...by } as Effect }
                }),
              ),
            )
          }
        >
          <option value="">once</option>
          {counted.map((one) => (
            <option key={one.value} value={one.value}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
    )
  switch (effect.do) {
    case 'close':
      return (
        <>
          {field('What they read', effect.message, (message) => ({ message }), { rows: 3 })}
          <fieldset>
            <legend className="ask">What else they can do</legend>
            {practice.services.map((service) => (
              <label key={service.id} className="flex min-h-[32px] items-center gap-3">
                <input
                  type="checkbox"
                  className="checkbox checkbox-primary checkbox-sm"
                  checked={effect.services.includes(service.id)}
                  onChange={(event) =>
                    set({
                      services: event.target.checked
                        ? [...effect.services, service.id]
                        : effect.services.filter((one) => one !== service.id),
                    })
                  }
                />
                see {service.name}
              </label>
            ))}
            <label className="flex min-h-[32px] items-center gap-3">
              <input
                type="checkbox"
                className="checkbox checkbox-primary checkbox-sm"
                checked={effect.enquiry}
                onChange={(event) => set({ enquiry: event.target.checked })}
              />
              write a message
            </label>
          </fieldset>
        </>
      )
    case 'look':
      return field('A note for yourself', effect.note, (note) => ({ note }))
    case 'points':
      return field('Points', String(effect.points), (typed) => ({ points: anyWhole(typed) }), {
        type: 'number',
      })
    case 'minutes':
      return (
        <div className="grid grid-cols-2 items-end gap-3">
          {field('By', String(effect.minutes), (typed) => ({ minutes: anyWhole(typed) }), {
            type: 'number',
            suffix: 'min',
          })}
          {times(effect)}
        </div>
      )
    case 'item':
      return (
        <div className="grid grid-cols-3 items-end gap-3">
          {field('What', effect.name, (name) => ({ name }))}
          {field('Price', money(effect.price), (typed) => ({ price: amount(typed, decimals) }), {
            suffix: code,
          })}
          {times(effect)}
        </div>
      )
    case 'tag':
      return field('Tag', effect.tag, (tag) => ({ tag: tag.trim() }))
    case 'enquiry':
      return <p className="text-[14px] text-soft">They are asked to write to you; no time is taken.</p>
    case 'deposit':
      return field('Deposit', money(effect.amount), (typed) => ({ amount: amount(typed, decimals) }), {
        suffix: code,
      })
    case 'suggest':
      return field('Service', effect.service, (service) => ({ service }), {
        options: practice.services.map((one) => ({ value: one.id, name: one.name })),
      })
  }
}
