import { piecesOf, TEXT_FIELDS, textField } from '@acolhida/core/practice'
import { type JSONContent, mergeAttributes, Node } from '@tiptap/core'
import { EditorContent, useEditor } from '@tiptap/react'
import StarterKit from '@tiptap/starter-kit'
import { useEffect, useRef } from 'react'
import { writingIn } from '../parts/writing.ts'

/** A field in a text: a chip that is written, deleted and moved as one. */
const Field = Node.create<{ names: Readonly<Record<string, string>> }>({
  name: 'field',
  group: 'inline',
  inline: true,
  atom: true,
  addOptions: () => ({ names: {} }),
  addAttributes: () => ({ name: { default: 'service' } }),
  parseHTML: () => [{ tag: 'span[data-field]', getAttrs: (at) => ({ name: at.getAttribute('data-field') }) }],
  renderHTML({ node, HTMLAttributes }) {
    const name = String(node.attrs.name)
    return [
      'span',
      mergeAttributes(HTMLAttributes, { 'data-field': name, class: 'tag tag-info' }),
      this.options.names[name] ?? textField(name)?.says ?? `{${name}}`,
    ]
  },
})

const lineOut = (line: string): JSONContent => ({
  type: 'paragraph',
  content: piecesOf(line).map((piece) =>
    typeof piece === 'string'
      ? { type: 'text', text: piece }
      : { type: 'field', attrs: { name: piece.field } },
  ),
})

/** A text as the editor takes it: a paragraph a line. */
const toEditor = (text: string): JSONContent => ({ type: 'doc', content: text.split('\n').map(lineOut) })

const lineIn = (node: JSONContent): string =>
  (node.content ?? [])
    .map(({ type, text, attrs }) =>
      type === 'field' ? `{${String(attrs?.name)}}` : type === 'hardBreak' ? '\n' : (text ?? ''),
    )
    .join('')

const fromEditor = (doc: JSONContent): string => (doc.content ?? []).map(lineIn).join('\n')

/**
 * A text whose fields stand in it as chips, picked from a list.
 * @param fields which can be put in, by what they are called
 */
export function ChipText({
  label,
  value,
  fields = FIELDS,
  lines = 6,
  onChange,
}: {
  label: string
  value: string
  fields?: Readonly<Record<string, string>>
  lines?: number
  onChange: (text: string) => void
}) {
  const said = useRef(value)
  const change = useRef(onChange)
  change.current = onChange
  const editor = useEditor({
    // Its few rules are in the theme: no style is put into the page by a script.
    injectCSS: false,
    extensions: [
      StarterKit.configure({
        ...{ blockquote: false, code: false, codeBlock: false, heading: false, horizontalRule: false },
        ...{ italic: false, strike: false, underline: false, bold: false, link: false },
        ...{ bulletList: false, orderedList: false, listItem: false },
      }),
      Field.configure({ names: fields }),
    ],
    content: toEditor(value),
    editorProps: {
      attributes: writingIn(label, `chips ${lines <= 1 ? 'min-h-10' : lines <= 3 ? 'min-h-24' : 'min-h-44'}`),
    },
    onUpdate: ({ editor: now }) => {
      said.current = fromEditor(now.getJSON())
      change.current(said.current)
    },
  })
  // What is changed elsewhere (undo, another text) is shown, unless it is what was typed here.
  useEffect(() => {
    if (!editor || value === said.current) return
    said.current = value
    editor.commands.setContent(toEditor(value), { emitUpdate: false })
  }, [editor, value])
  return (
    <div>
      <div className="mb-1 flex items-end justify-between gap-3">
        <span className="ask">{label}</span>
        <select
          className="field min-h-[30px] w-auto py-0 text-[13px]"
          aria-label={`Put a field into “${label}”`}
          value=""
          onChange={(event) => {
            const name = event.target.value
            if (name) editor?.chain().focus().insertContent({ type: 'field', attrs: { name } }).run()
          }}
        >
          <option value="">Put in a field …</option>
          {Object.entries(fields).map(([name, says]) => (
            <option key={name} value={name}>
              {says}
            </option>
          ))}
        </select>
      </div>
      <EditorContent editor={editor} />
    </div>
  )
}

/** Every field of messages, by what it is called. */
export const FIELDS: Readonly<Record<string, string>> = Object.fromEntries(
  Object.entries(TEXT_FIELDS).map(([name, { says }]) => [name, says]),
)
