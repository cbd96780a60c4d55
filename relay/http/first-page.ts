import type { DoorView } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { directionOf, inForce } from '@acolhida/core/time'
import { bookInForce, escapeHtml, jsonForHtml, type SaidValues } from '@acolhida/core/words'
import type door from '@acolhida/core/words/door'

const say = (word: keyof typeof door, values?: SaidValues): string => bookInForce('door').text(word, values)

/** What of a door is written into its page before any script: words of the practitioner, all of them escaped here. */
export interface FirstWords {
  view: DoorView
  email: string
}

function services({ slug, services, currency }: DoorView): string {
  return services
    .map(({ id, name, description, minutes, price }) => {
      const cost =
        price === undefined
          ? ''
          : price.kind === 'fixed' && price.amount > 0
            ? money(price.amount, currency)
            : price.kind === 'hourly'
              ? say('summary.hourly', { price: money(price.rate, currency) })
              : say('summary.free')
      const line = [minutes === undefined ? '' : say('summary.minutes', { minutes }), cost]
      return `<li class="sheet relative overflow-hidden"><a href="/${escapeHtml(slug)}/${escapeHtml(id)}" class="flex items-center gap-4 py-4 pr-4 pl-6"><span class="min-w-0 flex-1"><h2>${escapeHtml(name)}</h2><span class="mt-1 block">${escapeHtml(description)}</span><span class="mt-1.5 block text-[14px] text-soft">${escapeHtml(line.filter(Boolean).join(' · '))}</span></span></a></li>`
    })
    .join('')
}

/**
 * The door's page as the relay sends it: it says whose it is and what is offered before any script has run, with the
 * data that the application begins from in a block that nothing executes.
 * @param whole whether it is the page of what is offered; on any other only the head of it stands there
 */
export function firstPage(plain: string, { view, email }: FirstWords, whole: boolean): string {
  const { practice, slug } = view
  const without = say(practice.phone ? 'no-scripts-phone' : 'no-scripts', {
    email,
    phone: practice.phone ?? '',
  })
  const head = `<header class="relative overflow-hidden bg-rail text-white"><div class="mx-auto max-w-[1080px] px-5 pt-6 pb-12 sm:pt-7 sm:pb-14"><a href="/${escapeHtml(slug)}" class="serif text-[26px] sm:text-[30px]">${escapeHtml(practice.name)}</a>${practice.headline ? `<p class="mt-0.5">${escapeHtml(practice.headline)}</p>` : ''}</div></header>`
  const body = whole
    ? `<div class="max-w-[720px]">${practice.greeting ? `<p class="mb-5 text-[17px] whitespace-pre-line">${escapeHtml(practice.greeting)}</p>` : ''}<ul class="grid gap-3">${services(view)}</ul></div>`
    : ''
  const said = `<div class="door min-h-dvh pb-24">${head}<main class="mx-auto max-w-[1080px] px-5 pt-6">${body}<noscript><p class="mt-5">${escapeHtml(without)}</p></noscript></main></div>`
  return plain
    .replace('<html lang="en">', `<html lang="${escapeHtml(inForce())}" dir="${directionOf(inForce())}">`)
    .replace('<title>Acolhida</title>', () => (whole ? `<title>${escapeHtml(practice.name)}</title>` : ''))
    .replace(
      '<div id="root"></div>',
      () =>
        `<div id="root">${said}</div><script type="application/json" id="door">${jsonForHtml(view)}</script>`,
    )
}
