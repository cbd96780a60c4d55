import { dateAt, dateWords, zone } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useCombobox } from 'downshift'
import { useEffect, useState } from 'react'
import { db } from '../data/db.ts'
import { peopleFound } from '../data/lists.ts'
import type { PersonRow } from '../data/rows.ts'

/** When they come or came last, so that namesakes are not taken for one another. */
const lastOf = ({ latest }: PersonRow): string =>
  latest === undefined ? '' : `last session ${dateWords(dateAt(zone('UTC'), latest))}`

/** How many people are offered at once. */
const MOST = 12

/**
 * A field in which a person is looked for by name or address, and picked. Two of one name are told apart by their
 * addresses.
 * @param onType what is typed, where somebody who is not known may be named, too
 */
export function PersonChoice({
  label,
  but,
  chosen,
  typed,
  onChoose,
  onType,
}: {
  label: string
  /** Somebody who is not offered. */
  but?: string
  chosen?: PersonRow | undefined
  typed?: string
  onChoose: (person: PersonRow) => void
  onType?: (text: string) => void
}) {
  const [text, setText] = useState(typed ?? chosen?.name ?? '')
  useEffect(() => {
    if (typed !== undefined) setText(typed)
  }, [typed])
  const found =
    useLiveQuery(
      async () =>
        text.trim() ? (await peopleFound(db, text, MOST + 1)).filter((person) => person.id !== but) : [],
      [text, but],
    )?.slice(0, MOST) ?? []
  const { isOpen, getLabelProps, getInputProps, getMenuProps, getItemProps, highlightedIndex } = useCombobox({
    items: found,
    inputValue: text,
    itemToString: (person) => person?.name ?? '',
    itemToKey: (person) => person?.id,
    onSelectedItemChange: ({ selectedItem }) => {
      if (!selectedItem) return
      setText(selectedItem.name)
      onChoose(selectedItem)
    },
    selectedItem: chosen ?? null,
  })
  const open = isOpen && found.length > 0
  return (
    <div className="relative">
      {/* biome-ignore lint/a11y/noLabelWithoutControl: getLabelProps says which it is for */}
      <label className="ask" {...getLabelProps()}>
        {label}
      </label>
      <input
        className="field mt-1"
        {...getInputProps({
          onKeyDown: (event) => {
            // With nothing to close here, Escape is the dialog's.
            if (event.key === 'Escape' && !open)
              Object.assign(event.nativeEvent, { preventDownshiftDefault: true })
          },
          onChange: ({ currentTarget: { value } }) => {
            setText(value)
            onType?.(value)
          },
        })}
      />
      <ul
        {...getMenuProps({ 'aria-label': 'People found' })}
        className={
          open
            ? 'sheet absolute top-full right-0 left-0 z-20 mt-1 max-h-64 overflow-y-auto py-1 shadow-lg'
            : ''
        }
      >
        {open &&
          found.map((person, index) => (
            <li
              key={person.id}
              {...getItemProps({ item: person, index })}
              className={`cursor-pointer px-3 py-1.5 ${index === highlightedIndex ? 'bg-leaf-soft' : ''}`}
            >
              <b>{person.name}</b>{' '}
              <span className="text-[14px] text-soft">
                {[person.emails.join(', '), lastOf(person)].filter(Boolean).join(' · ')}
              </span>
            </li>
          ))}
      </ul>
      {chosen && (
        <p className="mt-1 text-[14px] text-soft">
          {chosen.name} · {chosen.emails.join(', ')}
        </p>
      )}
    </div>
  )
}
