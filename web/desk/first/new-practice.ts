import { plainLetters } from '@acolhida/core/people'
import { beginPractice, type Practice } from '@acolhida/core/practice'
import { BadData, letIn, practice as practiceSchema } from '@acolhida/core/schemas'
import { newKey } from '../../relay-client/client.ts'
import type { Founder } from './founder.tsx'

/**
 * A practice of somebody’s own. Its door is closed until it is opened: nobody comes in while things are still being
 * put up.
 * @throws Error with what is wrong about what was typed
 */
export function newPractice(about: Founder): Practice {
  const typed = { ...about, name: about.name.trim(), email: about.email.trim() }
  const id = newKey().replaceAll(/[_-]/g, 'x')
  const practice: Practice = {
    ...beginPractice({ id, slug: slugOf(typed.name), ...typed }),
    door: { open: false, text: '' },
  }
  try {
    return letIn(practiceSchema, practice, 'The practice')
  } catch (error) {
    if (error instanceof BadData) throw new Error(error.faults.map((fault) => fault.message).join('\n'))
    throw error
  }
}

/** A name as the last part of an address: small letters, digits and dashes. */
const slugOf = (name: string): string =>
  plainLetters(name)
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-+|-+$/g, '')
    .slice(0, 60) || 'practice'
