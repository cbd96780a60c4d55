export const many = (n: number): string => n.toLocaleString('en')

/** What a trial has found of one kind: how many, and the first of them by their rows. */
export function FoundRows({
  title,
  all,
  of,
  open = false,
}: {
  title: string
  all: number
  of: { row: number; text: string }[]
  open?: boolean
}) {
  if (all === 0) return null
  return (
    <details open={open}>
      <summary className="cursor-pointer font-semibold">{title}</summary>
      <section
        className="mt-1 max-h-[240px] overflow-y-auto"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keyboard
        tabIndex={0}
        aria-label={title}
      >
        <ul className="text-[14px]">
          {of.map(({ row, text }) => (
            <li key={row} className="grid grid-cols-[60px_1fr] gap-2 border-t border-line py-1 wrap-anywhere">
              <span className="figures text-soft">{row}</span>
              <span dir="auto">{text}</span>
            </li>
          ))}
        </ul>
      </section>
      {all > of.length && <p className="text-[13px] text-soft">The first {many(of.length)} are shown.</p>}
    </details>
  )
}
