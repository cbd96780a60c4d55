import { maybe, yes } from '../../shape/shape.ts'
import { answerWord, listed } from '../../words/index.ts'
import { addressOf } from '../address.ts'
import type { Kind } from './kind.ts'
import { plainText, written } from './written.ts'

/** Three lines: street, postal code, town. */
export interface Address {
  /** Its postal code says how far to travel. */
  travel?: boolean
}

const plain = plainText(500, { code: 'no-address' })
const common = written({
  name: 'A postal address',
  example: (n) => `Rua das Flores ${n + 1}\n3000-123\nCoimbra`,
  problem: (text) => {
    const wrong = plain(text)
    if (wrong) return wrong
    const { street, postalCode, town } = addressOf(text)
    const left = [...(street ? [] : ['street']), ...(postalCode ? [] : ['code']), ...(town ? [] : ['town'])]
    if (left.length === 0) return undefined
    const missing = listed(
      left.map((part) => answerWord('address-part', { part })),
      'and',
    )
    return { code: 'address-lacks', data: { missing } }
  },
  item: { type: 'text', named: true },
})

/** A postal address. */
export const addressKind: Kind<Address> = {
  ...common,
  shape: { travel: maybe(yes) },
  settings: [{ key: 'travel', label: 'Its postal code says how far I travel', is: 'switch' }],
  fhir: { ...common.fhir, write: () => ({ item: { type: 'text' }, kept: ['travel'], named: true }) },
}
