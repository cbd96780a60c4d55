/** The hours along a band, every other one; a drawing beside what says the times itself. */
export function HourMarks({
  from,
  to,
  every = 120,
  className = '',
}: {
  /** In minutes of the day. */
  from: number
  to: number
  /** In minutes. */
  every?: number
  className?: string
}) {
  const first = Math.ceil(from / every) * every
  const marks = Array.from(
    { length: Math.max(0, Math.floor((to - first) / every) + 1) },
    (_, i) => first + i * every,
  )
  return (
    <div className={`h-6 text-[12px] text-soft ${className}`} aria-hidden="true">
      <div className="relative h-full">
        {marks.map((minutes) => (
          <span
            key={minutes}
            className={`figures absolute ${minutes === to ? '-translate-x-full' : minutes === from ? '' : '-translate-x-1/2'}`}
            style={{ left: `${((minutes - from) / (to - from)) * 100}%` }}
          >
            {minutes / 60}:00
          </span>
        ))}
      </div>
    </div>
  )
}
