import { Dialog } from './dialog.tsx'

/** The keys of the desk. */
export function KeysDialog({
  rail,
  close,
}: {
  rail: readonly { name: string; key: string }[]
  close: () => void
}) {
  return (
    <Dialog title="Keys" close={close}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1.5">
        {[...rail, { name: 'Find something', key: '/' }, { name: 'These keys', key: '?' }].map((line) => (
          <div key={line.key} className="contents">
            <dt>
              <kbd className="kbd">{line.key}</kbd>
            </dt>
            <dd>{line.name}</dd>
          </div>
        ))}
        <div className="contents">
          <dt>
            <kbd className="kbd">w</kbd> <kbd className="kbd">o</kbd> <kbd className="kbd">a</kbd>{' '}
            <kbd className="kbd">d</kbd>
          </dt>
          <dd>On a request: welcome, offer other times, ask something, turn down</dd>
        </div>
        <div className="contents">
          <dt>
            <kbd className="kbd">←</kbd> <kbd className="kbd">→</kbd>
          </dt>
          <dd>On a day band: from start to start, with why it is open or closed</dd>
        </div>
      </dl>
    </Dialog>
  )
}
