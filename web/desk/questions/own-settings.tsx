import type { Practice } from '@acolhida/core/practice'
import {
  type Choice,
  FILE_KINDS,
  type FileKind,
  type Item,
  type KindSetting,
  kindOf,
  kindOfFileWords,
  type Question,
} from '@acolhida/core/questions'
import { SavedField } from '../parts/saved-field.tsx'
import { Switch } from '../parts/switch.tsx'
import { Tick } from '../parts/tick.tsx'
import { numberTyped, wholeTyped } from '../settings/setting.ts'
import { choiceLines, choicesFrom, itemLines, itemsFrom } from './lines.ts'
import { ownValue, valued } from './valued.ts'

interface Around {
  question: Question
  /** What a field is kept with. */
  field: (change: (question: Question, typed: string) => Question) => {
    what: string
    change: (practice: Practice, typed: string) => Practice
  }
  set: (change: (question: Question) => Question) => void
}

/** What is set of a question of its kind, as the kind says. */
export function OwnSettings(around: Around) {
  const { settings } = kindOf(around.question)
  const small = settings.filter(({ is }) => SMALL.includes(is))
  const large = settings.filter(({ is }) => !SMALL.includes(is))
  return (
    <>
      {large.map((setting) => (
        <Own key={setting.key} setting={setting} {...around} />
      ))}
      {small.length > 0 && (
        <div className={`grid items-end gap-3 ${small.length === 3 ? 'grid-cols-3' : 'grid-cols-2'}`}>
          {small.map((setting) => (
            <Own key={setting.key} setting={setting} {...around} />
          ))}
        </div>
      )}
    </>
  )
}

const SMALL: readonly KindSetting['is'][] = ['whole', 'number', 'text', 'kilobytes']

const LINES = {
  choices: 'With points, where answers are scored: “nearly every day | 3”.',
  items: 'With how many at most: “Wedding speech | 3”.',
} as const

function Own({ setting, question, field, set }: Around & { setting: KindSetting }) {
  const { key, label } = setting
  const value = ownValue(question, key)
  switch (setting.is) {
    case 'switch':
      return (
        <Switch
          label={label}
          on={Boolean(value)}
          onChange={(on) => set((question) => valued(question, key, on))}
        />
      )
    case 'text':
      return (
        <SavedField
          label={label}
          value={String(value ?? '')}
          {...field((question, typed) =>
            valued(question, key, typed.trim() === '' ? undefined : typed.trim()),
          )}
        />
      )
    case 'whole':
      return (
        <SavedField
          label={label}
          type="number"
          value={String(value ?? '')}
          {...field((question, typed) => {
            if (typed.trim() === '' && setting.must) throw new Error(setting.must)
            return valued(question, key, typed.trim() === '' ? undefined : wholeTyped(typed))
          })}
        />
      )
    case 'number':
      return (
        <SavedField
          label={label}
          inputMode="decimal"
          value={String(value ?? '')}
          {...field((question, typed) => {
            if (typed.trim() === '' && setting.must) throw new Error(setting.must)
            return valued(question, key, typed.trim() === '' ? undefined : numberTyped(typed))
          })}
        />
      )
    case 'kilobytes':
      return (
        <SavedField
          label={label}
          suffix="KB"
          type="number"
          value={String(Math.round(Number(value) / 1024))}
          {...field((question, typed) => valued(question, key, wholeTyped(typed) * 1024))}
        />
      )
    case 'choices':
    case 'items': {
      const choices = setting.is === 'choices'
      const listed = (value ?? []) as Choice[] & Item[]
      return (
        <SavedField
          label={label}
          help={LINES[setting.is]}
          rows={Math.min(8, listed.length + 1)}
          value={choices ? choiceLines(listed) : itemLines(listed)}
          {...field((question, typed) => {
            const before = (ownValue(question, key) ?? []) as Choice[] & Item[]
            return valued(question, key, choices ? choicesFrom(typed, before) : itemsFrom(typed, before))
          })}
        />
      )
    }
    case 'files': {
      const accepts = (value ?? []) as FileKind[]
      return (
        <fieldset>
          <legend className="ask">{label}</legend>
          {FILE_KINDS.map((kind) => (
            <Tick
              key={kind}
              label={kindOfFileWords(kind)}
              on={accepts.includes(kind)}
              last={accepts.length === 1}
              onChange={(on) =>
                set((question) => {
                  const before = (ownValue(question, key) ?? []) as FileKind[]
                  return valued(
                    question,
                    key,
                    on ? [...before, kind] : before.filter((other) => other !== kind),
                  )
                })
              }
            />
          ))}
        </fieldset>
      )
    }
  }
}
