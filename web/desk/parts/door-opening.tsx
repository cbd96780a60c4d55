import { useDesk } from '../data/live.ts'
import { SavedField } from './saved-field.tsx'
import { Switch } from './switch.tsx'
import { openOrClose, withDoor } from './with-door.ts'

/** Opens and closes the door, and what it says while it is closed. */
export function DoorOpening() {
  const { practice } = useDesk()
  const open = practice.door?.open !== false
  return (
    <section className="sheet grid gap-4 p-5">
      <h2>Open or closed</h2>
      <Switch label="My door is open" on={open} onChange={openOrClose} />
      {!open && (
        <SavedField
          label="What the door says while it is closed"
          help="Empty: that nothing can be asked for just now."
          what="what the closed door says"
          rows={3}
          value={practice.door?.text ?? ''}
          change={(p, text) => withDoor(p, { text: text.trim() })}
        />
      )}
      <p className="text-[13px] text-soft">
        While it is closed nobody new can ask for a time. What is booked stays booked, and whoever has a
        private link still comes in by it.
      </p>
    </section>
  )
}
