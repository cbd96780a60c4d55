import { dateAt } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useCombobox } from 'downshift'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { useAt } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { peopleFound } from '../data/lists.ts'
import type { Desk } from '../data/live.ts'
import { Dialog } from '../parts/dialog.tsx'
import { asUri } from '../parts/uri.ts'
import { homeZone } from '../parts/words.ts'
import { type Findable, findables, found } from './findable.ts'

/** How much is shown at once, and how much of it people at most. */
const MOST = 12
const PEOPLE = 6

/** Finds a page, a setting, a service, a person or something one does, and leads there. */
export function Finder({ desk: { practice }, close }: { desk: Desk; close: () => void }) {
  const navigate = useNavigate()
  const [text, setText] = useState('')
  const today = useAt((now) => dateAt(homeZone(practice), now))
  const all = useMemo(() => findables(practice, today), [practice, today])
  const people =
    useLiveQuery(async () => (text.trim() ? peopleFound(db, text, PEOPLE) : []), [text])?.map(
      (person): Findable => ({
        name: person.name,
        of: person.emails.join(', '),
        to: person.newest ? `/arrivals/${person.newest}` : `/people?q=${asUri(person.name)}`,
      }),
    ) ?? []
  const items = [...people, ...found(all, text, MOST - people.length)]
  const { getLabelProps, getInputProps, getMenuProps, getItemProps, highlightedIndex } =
    useCombobox<Findable>({
      items,
      inputValue: text,
      isOpen: true,
      defaultHighlightedIndex: 0,
      selectedItem: null,
      itemToString: () => text,
      onSelectedItemChange: ({ selectedItem }) => {
        if (!selectedItem) return
        close()
        void navigate(selectedItem.to)
      },
    })
  return (
    <Dialog title="Find" close={close}>
      {/* biome-ignore lint/a11y/noLabelWithoutControl: getLabelProps says which it is for */}
      <label className="ask" {...getLabelProps()}>
        A setting, a person, a service, something you do
      </label>
      <input
        className="field mt-1"
        {...getInputProps({
          onKeyDown: (event) => {
            // Escape is the dialog's.
            if (event.key === 'Escape') Object.assign(event.nativeEvent, { preventDownshiftDefault: true })
          },
          onChange: ({ currentTarget: { value } }) => setText(value),
        })}
      />
      <ul
        {...getMenuProps({ 'aria-label': 'What was found' })}
        className="mt-2 grid max-h-[50dvh] overflow-y-auto"
      >
        {items.map((item, index) => (
          <li
            key={`${item.to} ${item.name} ${item.of}`}
            {...getItemProps({ item, index })}
            className={`cursor-pointer rounded-lg px-3 py-1.5 ${index === highlightedIndex ? 'bg-leaf-soft' : ''}`}
          >
            <b>{item.name}</b> <span className="text-[14px] text-soft">{item.of}</span>
          </li>
        ))}
      </ul>
      <p role="status" className="mt-2 text-[14px] text-soft">
        {text.trim() && items.length === 0 ? 'Nothing here has these words.' : ''}
      </p>
    </Dialog>
  )
}
