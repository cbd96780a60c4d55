import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { type MessageFormatElement, parse, TYPE } from '@formatjs/icu-messageformat-parser'
import { printAST } from '@formatjs/icu-messageformat-parser/printer.js'

/** The letters of a pseudo language: each stands for itself, longer, and between marks, so that whatever has none shows. */
const LONGER: Readonly<Record<string, string>> = { a: 'áa', e: 'ée', i: 'íi', o: 'óo', u: 'úu' }

const longer = (text: string): string => text.replace(/[aeiou]/g, (letter) => LONGER[letter] ?? letter)

function inPseudo(of: MessageFormatElement): MessageFormatElement {
  if (of.type === TYPE.literal) return { ...of, value: longer(of.value) }
  if (of.type === TYPE.tag) return { ...of, children: of.children.map(inPseudo) }
  if (of.type === TYPE.select || of.type === TYPE.plural) {
    const options = Object.entries(of.options).map(([name, option]) => [
      name,
      { ...option, value: option.value.map(inPseudo) },
    ])
    return { ...of, options: Object.fromEntries(options) }
  }
  return of
}

/** A catalogue as whoever reads from right to left would have it: a third longer, every sentence between marks. */
export const pseudo = (catalogue: Readonly<Record<string, string>>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(catalogue).map(([name, text]) => [name, `⟦${printAST(parse(text).map(inPseudo))}⟧`]),
  )

/** The pseudo catalogue of the door, as it stands in the repository. */
export function pseudoDoor(root: string): { file: string; text: string } {
  const words = join(root, 'core', 'words')
  const door = JSON.parse(readFileSync(join(words, 'en', 'door.json'), 'utf8')) as Record<string, string>
  return { file: join(words, 'pseudo', 'door.json'), text: `${JSON.stringify(pseudo(door), null, 2)}\n` }
}

if (process.argv[1]?.endsWith('pseudo.ts')) {
  const { file, text } = pseudoDoor(join(import.meta.dirname, '..'))
  mkdirSync(join(file, '..'), { recursive: true })
  writeFileSync(file, text)
}
