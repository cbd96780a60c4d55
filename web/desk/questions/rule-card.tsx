import { signOf } from '@acolhida/core/money'
import type { Practice } from '@acolhida/core/practice'
import {
  asksSomething,
  conditionWords,
  type DraftFault,
  EFFECTS,
  type Effect,
  type EffectSetting,
  effectKind,
  effectWords,
  kindOf,
  type Multiplier,
  type Rule,
  type Sheet,
} from '@acolhida/core/questions'
import type { Finding } from '@acolhida/core/questions/paths'
import { Trash2 } from 'lucide-react'
import { Fragment, type ReactNode } from 'react'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { useSortableRow } from '../parts/sortable-list.tsx'
import { Tick } from '../parts/tick.tsx'
import { currencyOf } from '../parts/words.ts'
import { amount } from '../settings/setting.ts'
import { ConditionEdit } from './condition-edit.tsx'
import { changeDraft, withDraft, withRule } from './draft.ts'
import { Said } from './question-card.tsx'
import { RowHead } from './row-head.tsx'

/** An effect of another kind, to begin with. */
const asEffect = (kind: Effect['do'], practice: Practice): Effect =>
  ({ do: kind, ...EFFECTS[kind].begin(practice.services[0]!.id) }) as Effect

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
  const set = (change: (rule: Rule) => Rule): void =>
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
                  rules: now.rules.filter((other) => other.id !== rule.id),
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
                  withRule(rule.id, (rule) => ({ ...rule, name: name.trim() })),
                )
              }
            />
            <div>
              <p className="ask mb-1">When</p>
              <ConditionEdit
                condition={rule.when}
                questions={sheet.questions.filter(asksSomething)}
                ofRule
                onChange={(when) => set((rule) => ({ ...rule, when: when ?? { all: [] } }))}
              />
            </div>
            <label className="ask">
              then
              <select
                className="field mt-1"
                value={rule.effect.do}
                onChange={(event) => {
                  const effect = asEffect(event.target.value as Effect['do'], practice)
                  set((rule) => ({ ...rule, effect }))
                }}
              >
                {Object.entries(EFFECTS).map(([value, { name }]) => (
                  <option key={value} value={value}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <EffectFields id={id} practice={practice} sheet={sheet} rule={rule} />
          </div>
        )}
        <ProblemNote of={act} />
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
        withRule(rule.id, (rule) => ({ ...rule, effect: { ...rule.effect, ...part } as Effect })),
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
          withRule(rule.id, (rule) => ({ ...rule, effect: { ...rule.effect, ...read(typed) } as Effect })),
        )
      }
      {...more}
    />
  )
  const money = (value: number): string => (value / 10 ** decimals).toFixed(decimals)
  const counted = sheet.questions.flatMap((question): { by: Multiplier; name: string }[] => {
    if (question.private || !kindOf(question).multiplies) return []
    const by = { times: question.id }
    if (!('items' in question)) return [{ by, name: `the answer to “${question.text}”` }]
    return [
      { by, name: `all of “${question.text}”` },
      ...question.items.map(({ id: of, text }) => ({ by: { ...by, of }, name: `how many “${text}”` })),
    ]
  })
  const times = (): ReactNode =>
    counted.length > 0 && (
      <SavedField
        label="times"
        what="a rule"
        value={multiplierOf(effect)}
        options={[
          { value: ONCE, name: 'once' },
          ...counted.map(({ by, name }) => ({ value: JSON.stringify(by), name })),
        ]}
        change={(p, typed) =>
          withDraft(
            p,
            id,
            withRule(rule.id, (rule) => ({ ...rule, effect: withMultiplier(rule.effect, typed) })),
          )
        }
      />
    )
  const { settings, about } = effectKind(effect)
  const value = (key: string): unknown => Reflect.get(effect, key)
  const part = (key: string, next: unknown): Partial<Effect> => ({ [key]: next })
  const drawn = ({ key, label, is, suffix }: EffectSetting): ReactNode => {
    switch (is) {
      case 'text':
        return field(label, String(value(key)), (typed) => part(key, key === 'tag' ? typed.trim() : typed))
      case 'long':
        return field(label, String(value(key)), (typed) => part(key, typed), { rows: 3 })
      case 'whole':
        return field(label, String(value(key)), (typed) => part(key, anyWhole(typed)), {
          type: 'number',
          ...(suffix ? { suffix } : {}),
        })
      case 'money':
        return field(label, money(Number(value(key))), (typed) => part(key, amount(typed, decimals)), {
          suffix: signOf(code),
        })
      case 'service':
        return field(label, String(value(key)), (typed) => part(key, typed), {
          options: practice.services.map((service) => ({ value: service.id, name: service.name })),
        })
      case 'services': {
        const chosen = value(key) as string[]
        return (
          <fieldset>
            <legend className="ask">{label}</legend>
            {practice.services.map((service) => (
              <Tick
                key={service.id}
                label={`see ${service.name}`}
                on={chosen.includes(service.id)}
                onChange={(on) =>
                  set(
                    part(key, on ? [...chosen, service.id] : chosen.filter((other) => other !== service.id)),
                  )
                }
              />
            ))}
          </fieldset>
        )
      }
      case 'tick':
        return <Tick label={label} on={value(key) === true} onChange={(on) => set(part(key, on))} />
      case 'times':
        return times()
    }
  }
  const side = settings.filter(({ is }) => SIDE.includes(is))
  return (
    <>
      {settings
        .filter(({ is }) => !SIDE.includes(is))
        .map((setting) => (
          <Fragment key={setting.key}>{drawn(setting)}</Fragment>
        ))}
      {side.length > 0 && (
        <div className={`grid items-end gap-3 ${COLUMNS[side.length] ?? 'grid-cols-3'}`}>
          {side.map((setting) => (
            <Fragment key={setting.key}>{drawn(setting)}</Fragment>
          ))}
        </div>
      )}
      {about && <p className="text-[14px] text-soft">{about}</p>}
      <ProblemNote of={act} />
    </>
  )
}

/** What an effect multiplies by, as it is chosen. */
const ONCE = ''
const multiplierOf = (effect: Effect): string => {
  if (!('times' in effect) || effect.times === undefined) return ONCE
  const { times, of } = effect
  return JSON.stringify(of === undefined ? { times } : { times, of })
}
const withMultiplier = (effect: Effect, chosen: string): Effect => {
  const { times: _, of: __, ...once } = effect as Effect & Partial<Multiplier>
  return { ...once, ...(chosen === ONCE ? {} : (JSON.parse(chosen) as Multiplier)) } as Effect
}

/** What is small enough to stand side by side. */
const SIDE: readonly EffectSetting['is'][] = ['text', 'whole', 'money', 'service', 'times']
const COLUMNS: Record<number, string> = { 1: 'grid-cols-1', 2: 'grid-cols-2' }
