import type door from '@acolhida/core/words/door'
import { wordsOn } from '../../words/rich.tsx'

/** Every sentence of the door, by its name. */
export const { say, rich } = wordsOn<keyof typeof door>('door')
