import type { Practice, PracticeFault, Service } from '@acolhida/core/practice'
import { SavedField } from '../parts/saved-field.tsx'
import { currencyOf } from '../parts/words.ts'
import type { ServiceField } from './fields.ts'

/** The practice with one of its services changed. */
export const withService = (
  practice: Practice,
  id: string,
  change: (service: Service) => Service,
): Practice => ({
  ...practice,
  services: practice.services.map((one) => (one.id === id ? change(one) : one)),
})

/** Settings of a service as fields, each with what is wrong about it beside. */
export function Fields({
  fields,
  service,
  practice,
  faults,
}: {
  fields: readonly ServiceField[]
  service: Service
  practice: Practice
  faults: readonly PracticeFault[]
}) {
  const { code, decimals } = currencyOf(practice.profile.currency)
  const shown = fields.filter((field) => !field.show || field.show(service))
  return (
    <div className="grid grid-cols-2 items-end gap-x-4 gap-y-3">
      {shown.map(({ label, what, read, write, money, at, help, suffix, rows, type, options }) => {
        const value = read(service)
        const warning = faults.find((fault) => at && fault.path.endsWith(`.${at}`))?.message
        return (
          <div key={label} className={rows || label === 'Name' || warning ? 'col-span-2' : ''}>
            <SavedField
              label={label}
              what={what}
              value={money && value !== '' ? (Number(value) / 10 ** decimals).toFixed(decimals) : value}
              warning={warning}
              change={(p, typed) => withService(p, service.id, (one) => write(one, typed, decimals))}
              {...(help ? { help } : {})}
              {...(rows ? { rows } : {})}
              {...(type ? { type } : {})}
              {...(options ? { options } : {})}
              {...(money ? { suffix: code } : suffix ? { suffix } : {})}
            />
          </div>
        )
      })}
    </div>
  )
}
