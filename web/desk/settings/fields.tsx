import { signOf } from '@acolhida/core/money'
import type { Practice, PracticeFault } from '@acolhida/core/practice'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { SavedField } from '../parts/saved-field.tsx'
import { Switch } from '../parts/switch.tsx'
import { currencyOf } from '../parts/words.ts'
import { AS_WRITTEN, type Setting, typedOf, UNITS, withTyped } from './setting.ts'

/** Settings of something as fields, each with what is wrong about it beside. */
export function Fields<T>({
  settings,
  of,
  practice,
  change,
  faults = [],
  path = '',
  narrow = false,
}: {
  settings: readonly Setting<T>[]
  of: T
  practice: Practice
  /** The practice with the thing changed. */
  change: (practice: Practice, to: (of: T) => T) => Practice
  faults?: readonly PracticeFault[]
  /** Where the thing stands in the practice: "services[2]". */
  path?: string
  /** One below the other, where there is no room for two. */
  narrow?: boolean
}) {
  const { code, decimals } = currencyOf(practice.profile.currency)
  return (
    <div className={`grid grid-cols-1 items-end gap-x-4 gap-y-3 ${narrow ? '' : 'sm:grid-cols-2'}`}>
      {settings
        .filter((setting) => !setting.show || setting.show(of))
        .map((setting) => {
          const at = [path, setting.path].filter(Boolean).join('.')
          const warning = setting.path ? faults.find((fault) => fault.path === at)?.message : undefined
          const wide = warning || setting.is === 'switch' || ('rows' in setting && setting.rows)
          return (
            <div key={setting.label} className={`min-w-0 ${wide && !narrow ? 'sm:col-span-2' : ''}`}>
              <Field
                setting={setting}
                typed={typedOf(setting, of, decimals)}
                change={(p, typed) => change(p, (one) => withTyped(setting, one, typed, decimals))}
                currency={signOf(code)}
                warning={warning}
              />
            </div>
          )
        })}
    </div>
  )
}

function Field<T>({
  setting,
  typed,
  change,
  currency,
  warning,
}: {
  setting: Setting<T>
  typed: string
  change: (practice: Practice, typed: string) => Practice
  currency: string
  warning: string | undefined
}) {
  const { label, what, help } = setting
  if (setting.is === 'switch') {
    return (
      <Switch
        label={label}
        on={typed === 'yes'}
        onChange={(on) => changePractice(db, what, (p) => change(p, on ? 'yes' : ''))}
      />
    )
  }
  const suffix = setting.is === 'money' ? currency : 'suffix' in setting ? setting.suffix : undefined
  return (
    <SavedField
      label={label}
      set={setting.path}
      what={what}
      value={typed}
      change={change}
      warning={warning}
      {...(help ? { help } : {})}
      {...(suffix ? { suffix } : {})}
      {...(setting.is === 'text' && setting.rows ? { rows: setting.rows } : {})}
      {...(setting.is === 'whole' || setting.is === 'limit' ? { type: 'number' as const } : {})}
      {...(setting.is === 'date' ? { type: 'date' as const } : {})}
      {...(setting.is === 'choice' ? { options: setting.options } : {})}
      {...(setting.is === 'duration'
        ? { units: typed.endsWith(AS_WRITTEN) ? [...UNITS, AS_WRITTEN] : UNITS }
        : {})}
    />
  )
}
