import { answersOverTime, type OverTime } from '@acolhida/core/booking/over-time'
import type { Practice } from '@acolhida/core/practice'
import { dateAt, shortDate } from '@acolhida/core/time'
import {
  CategoryScale,
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js'
import { useEffect, useMemo, useRef } from 'react'
import type { BookingRow } from '../data/rows.ts'
import { homeZone } from '../parts/words.ts'
import { Card } from '../request/card.tsx'

Chart.register(CategoryScale, LinearScale, LineController, LineElement, PointElement, Filler, Tooltip)

/** What somebody answered in numbers, session after session: each as a line, and as a table. */
export function AnswersOverTime({
  practice,
  bookings,
}: {
  practice: Practice
  bookings: readonly BookingRow[]
}) {
  const series = useMemo(
    () =>
      answersOverTime(
        practice,
        bookings.filter(({ status }) => status === 'booked' || status === 'attended'),
      ),
    [practice, bookings],
  )
  if (series.length === 0) return null
  return (
    <Card title="Over time">
      {series.map((one) => (
        <Line key={one.id} practice={practice} of={one} />
      ))}
    </Card>
  )
}

/** A colour of the theme, as it is now. */
const colour = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim()

function Line({ practice, of }: { practice: Practice; of: OverTime }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const days = useMemo(
    () => of.points.map(({ at }) => shortDate(dateAt(homeZone(practice), at))),
    [of, practice],
  )
  useEffect(() => {
    if (!canvas.current) return
    const leaf = colour('--color-primary')
    const soft = colour('--soft')
    const line = colour('--color-base-300')
    const font = { family: getComputedStyle(document.body).fontFamily, size: 12 }
    const chart = new Chart(canvas.current, {
      type: 'line',
      data: {
        labels: days,
        datasets: [
          {
            data: of.points.map(({ value }) => value),
            ...{ borderColor: leaf, backgroundColor: leaf, borderWidth: 2, tension: 0 },
            ...{ pointRadius: 4, pointHoverRadius: 6 },
          },
        ],
      },
      options: {
        ...{ animation: false, maintainAspectRatio: false },
        plugins: { tooltip: { displayColors: false } },
        scales: {
          x: { ticks: { color: soft, font }, grid: { display: false } },
          y: {
            ticks: { color: soft, font, precision: 0 },
            grid: { color: line },
            ...(of.least === undefined ? {} : { min: of.least }),
            ...(of.most === undefined ? {} : { max: of.most }),
          },
        },
      },
    })
    return () => chart.destroy()
  }, [of, days])
  return (
    <figure className="mt-3">
      <figcaption className="text-[14px]" dir="auto">
        {of.name}
      </figcaption>
      <div className="relative mt-1 h-[140px]">
        <canvas
          ref={canvas}
          role="img"
          aria-label={`${of.name}: ${of.points.map(({ value }, i) => `${value} on ${days[i]}`).join(', ')}`}
        />
      </div>
      <details>
        <summary className="way cursor-pointer text-[13px]">As a table</summary>
        <table className="mt-1 text-[14px]">
          <tbody>
            {of.points.map(({ booking, value }, i) => (
              <tr key={booking}>
                <th scope="row" className="pr-4 text-left font-normal">
                  {days[i]}
                </th>
                <td className="figures">{value}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </figure>
  )
}
