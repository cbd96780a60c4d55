import { parseSync } from 'vite'

interface Node {
  type: string
  start: number
  [key: string]: unknown
}

/** Attributes that are read by people. */
const READ = new Set(['aria-label', 'alt', 'title', 'placeholder', 'label', 'help', 'summary'])
/** What is written for who builds the house: never shown at the door. */
const THROWN = /^(?:Error|TypeError|RangeError)$/

const isNode = (value: unknown): value is Node =>
  typeof value === 'object' && value !== null && typeof (value as Node).type === 'string'

/** Two words and more, of which the first has a capital or the last an end. */
const isSentence = (text: string): boolean =>
  /\p{L}\s+\p{L}/u.test(text) && (/^[“"\s]*\p{Lu}\p{Ll}*\s/u.test(text) || /\p{Ll}[.?!…]\s*$/u.test(text))

const hasWord = (text: string): boolean => /\p{L}{2,}/u.test(text)

function textOf(node: Node): string | undefined {
  if (node.type === 'Literal' && typeof node.value === 'string') return node.value
  if (node.type === 'TemplateLiteral')
    return (node.quasis as { value: { cooked: string } }[]).map(({ value }) => value.cooked).join(' x ')
  return undefined
}

/**
 * The words for people that a source file holds itself, with their lines: text between tags, what is read aloud of a
 * tag, and sentences in strings. Sentences of errors that only a builder sees are left out.
 */
export function sentencesHeld(name: string, source: string): string[] {
  const found: string[] = []
  const say = (node: Node, text: string) =>
    found.push(`${name}:${source.slice(0, node.start).split('\n').length} ${text.trim()}`)
  const look = (node: Node): void => {
    if (node.type.startsWith('TS') || node.type === 'ImportDeclaration') return
    if (node.type === 'NewExpression' && THROWN.test(String((node.callee as Node).name))) return
    if (node.type === 'JSXText' && hasWord(String(node.value))) return void say(node, String(node.value))
    if (node.type === 'JSXAttribute') {
      const attribute = String((node.name as Node).name)
      const value = node.value as Node | null
      const text = value && textOf(value)
      if (text !== null && text !== undefined) {
        if (READ.has(attribute) && hasWord(text)) say(node, text)
        return
      }
      if (attribute === 'className') return
    }
    const text = textOf(node)
    if (text !== undefined && isSentence(text)) say(node, text)
    for (const value of Object.values(node)) {
      if (Array.isArray(value)) for (const one of value) isNode(one) && look(one)
      else if (isNode(value)) look(value)
    }
  }
  look(parseSync(name, source).program as unknown as Node)
  return found
}
