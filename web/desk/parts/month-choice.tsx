import type { LocalDate } from '@acolhida/core/time'
import { date } from '@acolhida/core/time'
import { DayPicker } from '@daypicker/react'

const asDate = (on: LocalDate): Date => {
  const [year, month, day] = on.split('-').map(Number) as [number, number, number]
  return new Date(year, month - 1, day, 12)
}

const fromDate = (at: Date): LocalDate => {
  const two = (n: number): string => String(n).padStart(2, '0')
  return date(`${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`)
}

const STEP = 'press press-quiet size-9 px-0 grid place-items-center'

/** A month to pick a day from. */
export default function MonthChoice({
  value,
  today,
  weekStart,
  onChoose,
}: {
  value: LocalDate | undefined
  today: LocalDate
  /** 1 is Monday, 7 Sunday. */
  weekStart: number
  onChoose: (on: LocalDate) => void
}) {
  const chosen = value && asDate(value)
  return (
    <DayPicker
      autoFocus
      mode="single"
      required
      selected={chosen}
      defaultMonth={chosen ?? asDate(today)}
      today={asDate(today)}
      weekStartsOn={(weekStart % 7) as 0 | 1 | 2 | 3 | 4 | 5 | 6}
      onSelect={(at: Date) => onChoose(fromDate(at))}
      classNames={{
        months: 'relative',
        month_caption: 'serif flex h-9 items-center px-2 font-semibold',
        nav: 'absolute top-0 right-0 flex',
        button_previous: STEP,
        button_next: STEP,
        chevron: 'size-4 fill-current',
        month_grid: 'mt-1',
        weekday: 'size-9 text-[12px] font-normal text-soft',
        day: 'p-0 text-center',
        day_button: 'figures size-9 cursor-pointer rounded-lg hover:bg-shade',
        selected: '[&>button]:bg-leaf [&>button]:font-semibold [&>button]:text-primary-content',
        today: '[&>button]:underline [&>button]:underline-offset-4',
        outside: 'opacity-60',
      }}
    />
  )
}
