import type { Block, Practice } from '@acolhida/core/practice'
import { useState } from 'react'
import { Dialog } from '../parts/dialog.tsx'
import { Tick } from '../parts/tick.tsx'
import { keptFor } from './scope.ts'

type Kept = NonNullable<Block['reservedFor']>

/** A block kept for somebody: what is not ticked at all is not asked about. */
function withKept(block: Block, kept: Kept): Block {
  const { reservedFor: _, ...open } = block
  const reservedFor: Kept = {
    ...(kept.services?.length ? { services: kept.services } : {}),
    ...(kept.places?.length ? { places: kept.places } : {}),
    ...(kept.known ? { known: true } : {}),
  }
  return Object.keys(reservedFor).length > 0 ? { ...open, reservedFor } : open
}

/** Keeps blocks of a day for certain services, places or known people. It binds clients only. */
export function Reserve({
  practice,
  name,
  blocks,
  onChange,
}: {
  practice: Practice
  /** Which day it is. */
  name: string
  blocks: readonly Block[]
  /** Told how they change, to be done to what is kept by then: a quick hand is ahead of what is shown. */
  onChange: (change: (blocks: Block[]) => Block[]) => void
}) {
  const [open, setOpen] = useState(false)
  const kept = blocks.filter((block) => block.reservedFor)
  if (blocks.length === 0) return null
  return (
    <div className="mt-0.5 flex flex-wrap gap-x-3 text-[13px] text-soft">
      {kept.map((block) => (
        <span key={block.from}>
          {block.from} – {block.to} kept for {keptFor(practice, block)}
        </span>
      ))}
      <button
        type="button"
        className="way text-[13px]"
        aria-label={`${kept.length > 0 ? 'Change' : 'Keep for …'}, hours of ${name}`}
        onClick={() => setOpen(true)}
      >
        {kept.length > 0 ? 'Change' : 'Keep for …'}
      </button>
      {open && (
        <Dialog title={`Hours of ${name}, kept for somebody`} close={() => setOpen(false)} wide>
          <p className="mb-3 text-soft">
            Clients find these hours open only for what is ticked. You yourself can book anything into them.
          </p>
          {blocks.map((block, i) => {
            const now = block.reservedFor ?? {}
            const set = (make: (kept: Kept) => Kept): void =>
              onChange((before) =>
                before.map((one, at) => (at === i ? withKept(one, make(one.reservedFor ?? {})) : one)),
              )
            const list = (before: readonly string[] | undefined, id: string, on: boolean): string[] =>
              on ? [...(before ?? []), id] : (before ?? []).filter((other) => other !== id)
            return (
              <fieldset key={block.from} className="sheet mb-3 p-4">
                <legend className="serif px-1 text-[17px]">
                  {block.from} – {block.to}
                </legend>
                <div className="grid gap-x-6 sm:grid-cols-2">
                  <div>
                    <p className="ask">Services</p>
                    {practice.services.map((service) => (
                      <Tick
                        key={service.id}
                        label={service.name}
                        on={now.services?.includes(service.id) ?? false}
                        onChange={(on) =>
                          set((kept) => ({ ...kept, services: list(kept.services, service.id, on) }))
                        }
                      />
                    ))}
                  </div>
                  <div>
                    <p className="ask">Places</p>
                    {practice.places.map((place) => (
                      <Tick
                        key={place.id}
                        label={place.name}
                        on={now.places?.includes(place.id) ?? false}
                        onChange={(on) =>
                          set((kept) => ({ ...kept, places: list(kept.places, place.id, on) }))
                        }
                      />
                    ))}
                    <p className="ask mt-2">People</p>
                    <Tick
                      label="Only people I know"
                      on={now.known ?? false}
                      onChange={(known) => set((kept) => ({ ...kept, known }))}
                    />
                  </div>
                </div>
              </fieldset>
            )
          })}
        </Dialog>
      )}
    </div>
  )
}
