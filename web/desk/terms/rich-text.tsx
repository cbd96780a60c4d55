import { TERMS_FIELDS, type TextBlock } from '@acolhida/core/terms'
import { mergeAttributes, Node } from '@tiptap/core'
import { EditorContent, useEditor, useEditorState } from '@tiptap/react'
import StarterKit from '@tiptap/starter-kit'
import { useState } from 'react'
import { writingIn } from '../parts/writing.ts'
import { FIELD_NAMES, fromEditor, toEditor } from './rich.ts'

/** A field in the text: a chip that is written, deleted and moved as one. */
const Field = Node.create({
  name: 'field',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({ name: { default: 'service' } }),
  parseHTML: () => [{ tag: 'span[data-field]', getAttrs: (at) => ({ name: at.getAttribute('data-field') }) }],
  renderHTML: ({ node, HTMLAttributes }) => {
    const name = String(node.attrs.name) as keyof typeof FIELD_NAMES
    return [
      'span',
      mergeAttributes(HTMLAttributes, { 'data-field': name, class: 'tag tag-info' }),
      FIELD_NAMES[name] ?? name,
    ]
  },
})

const SAFE = /^(https?:\/\/|mailto:)\S{3,500}$/

/** A text with bold words, lists, links and fields. */
export function RichText({
  label,
  value,
  fields = true,
  onChange,
}: {
  label: string
  value: readonly TextBlock[]
  /** Whether fields can be put in. */
  fields?: boolean
  onChange: (blocks: TextBlock[]) => void
}) {
  const [linking, setLinking] = useState<string>()
  const [wrong, setWrong] = useState(false)
  const editor = useEditor({
    injectCSS: false,
    extensions: [
      StarterKit.configure({
        ...{ blockquote: false, code: false, codeBlock: false, heading: false, horizontalRule: false },
        ...{ italic: false, strike: false, underline: false },
        link: { openOnClick: false, isAllowedUri: (url) => SAFE.test(url), autolink: true },
      }),
      Field,
    ],
    content: toEditor(value),
    editorProps: {
      attributes: writingIn(label, 'min-h-28'),
    },
    onUpdate: ({ editor: now }) => onChange(fromEditor(now.getJSON())),
  })
  const on = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      bold: now?.isActive('bold') ?? false,
      bullets: now?.isActive('bulletList') ?? false,
      numbers: now?.isActive('orderedList') ?? false,
      link: now?.isActive('link') ?? false,
    }),
  })
  const link = (): void => {
    const to = linking?.trim() ?? ''
    if (!SAFE.test(to)) {
      setWrong(true)
      return
    }
    editor?.chain().focus().extendMarkRange('link').setLink({ href: to }).run()
    setLinking(undefined)
  }
  const tool = (name: string, pressed: boolean | undefined, onPress: () => void) => (
    <button
      type="button"
      className={`press press-quiet min-h-[30px] px-2 py-1 text-[13px] ${pressed ? 'bg-leaf-soft' : ''}`}
      aria-pressed={pressed}
      // The text keeps the focus: one writes on at once.
      onMouseDown={(event) => event.preventDefault()}
      onClick={onPress}
    >
      {name}
    </button>
  )
  return (
    <div>
      <div role="toolbar" aria-label={`How “${label}” is written`} className="mb-1 flex flex-wrap gap-1">
        {tool('Bold', on?.bold, () => editor?.chain().focus().toggleBold().run())}
        {tool('List', on?.bullets, () => editor?.chain().focus().toggleBulletList().run())}
        {tool('1, 2, 3', on?.numbers, () => editor?.chain().focus().toggleOrderedList().run())}
        {tool('Link', on?.link, () =>
          on?.link ? editor?.chain().focus().unsetLink().run() : setLinking('https://'),
        )}
        {fields && (
          <select
            className="field min-h-[30px] w-auto py-0 text-[13px]"
            aria-label="Put in a field"
            value=""
            onChange={(event) => {
              const name = event.target.value
              if (name) editor?.chain().focus().insertContent({ type: 'field', attrs: { name } }).run()
            }}
          >
            <option value="">Put in a field …</option>
            {TERMS_FIELDS.map((field) => (
              <option key={field} value={field}>
                {FIELD_NAMES[field]}
              </option>
            ))}
          </select>
        )}
      </div>
      {linking !== undefined && (
        <div className="mb-2 flex flex-wrap items-end gap-2">
          <label className="ask">
            Where it leads
            <input
              className="field mt-1"
              value={linking}
              aria-invalid={wrong}
              onChange={(event) => {
                setLinking(event.target.value)
                setWrong(false)
              }}
            />
          </label>
          <button type="button" className="press" onClick={link}>
            Make it a link
          </button>
          <button type="button" className="press press-quiet" onClick={() => setLinking(undefined)}>
            No link
          </button>
          {wrong && (
            <p role="alert" className="basis-full font-semibold text-clay">
              A link begins with https:// or mailto:
            </p>
          )}
        </div>
      )}
      <EditorContent editor={editor} />
    </div>
  )
}
