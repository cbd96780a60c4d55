import type { Language } from '../time/language.ts'

/** A way of speaking to begin from: the sentences that give it its sound; all others stay as they are. */
export interface Voice {
  key: 'plain' | 'warm' | 'brief'
  name: string
  about: string
  words: Readonly<Record<Language, Readonly<Record<string, string>>>>
}

/** Three voices: ours, a warmer one, and a brief one. */
export const VOICES: readonly Voice[] = [
  { key: 'plain', name: 'Plain', about: 'As it is: short, kind, exact.', words: { en: {}, pt: {} } },
  {
    key: 'warm',
    name: 'Warm',
    about: 'Closer, as to somebody one is glad to see.',
    words: {
      en: {
        'letters.hello': 'Dear {name},',
        'letters.asked': 'How good to hear from you. You have asked for {service}, {when}.',
        'letters.confirmation': 'Yes, gladly: {service}, {when}, is yours.',
        'letters.confirmation.looking-forward': 'I am looking forward to seeing you.',
        'letters.declined':
          'Thank you for thinking of me. I am sorry: {service}, {when}, is a time I can’t offer you.',
        'letters.offered':
          'I would be glad to see you at {count, plural, one {this time} other {one of these times}}:',
        'letters.cancelled.by-me': 'I am truly sorry: I have to cancel {service}, {when}. Nothing is owed.',
        'letters.cancelled.by-you': '{service}, {when}, is cancelled, as you wished.',
        'door.my.booked': 'Lovely: your time is confirmed',
        'door.my.waiting': 'Thank you: your request is here',
        'door.write.thanks': 'Thank you for writing to me',
      },
      pt: {
        'letters.hello': 'Com estima, {name},',
        'letters.asked': 'Que bom receber notícias suas. Pediu {service}, {when}.',
        'letters.confirmation': 'Sim, com muito gosto: {service}, {when}, é seu.',
        'letters.confirmation.looking-forward': 'Fico à sua espera com alegria.',
        'letters.declined':
          'Agradeço que tenha pensado em mim. Lamento: {service}, {when}, é uma hora que não posso oferecer.',
        'letters.offered':
          'Teria muito gosto em que viesse {count, plural, one {a esta hora} other {a uma destas horas}}:',
        'letters.cancelled.by-me': 'Lamento muito: tenho de cancelar {service}, {when}. Nada é devido.',
        'letters.cancelled.by-you': '{service}, {when}, está cancelado, como desejou.',
        'door.my.booked': 'Que bom: a sua hora está confirmada',
        'door.my.waiting': 'Agradeço: o seu pedido chegou',
        'door.write.thanks': 'Agradeço a sua mensagem',
      },
    },
  },
  {
    key: 'brief',
    name: 'Brief',
    about: 'Only what is needed.',
    words: {
      en: {
        'letters.hello': '{name},',
        'letters.asked': 'Asked for: {service}, {when}.',
        'letters.confirmation': 'Confirmed: {service}, {when}.',
        'letters.confirmation.looking-forward': 'Until then.',
        'letters.declined': '{service}, {when}: not possible, I am sorry.',
        'letters.offered': '{count, plural, one {Possible} other {Possible times}}:',
        'letters.cancelled.by-me': 'I have to cancel {service}, {when}. I am sorry. Nothing is owed.',
        'letters.cancelled.by-you': 'Cancelled: {service}, {when}.',
        'door.my.booked': 'Confirmed',
        'door.my.waiting': 'Received',
        'door.write.thanks': 'Received',
      },
      pt: {
        'letters.hello': '{name},',
        'letters.asked': 'Pedido: {service}, {when}.',
        'letters.confirmation': 'Confirmado: {service}, {when}.',
        'letters.confirmation.looking-forward': 'Até lá.',
        'letters.declined': '{service}, {when}: não é possível, lamento.',
        'letters.offered': '{count, plural, one {É possível} other {São possíveis}}:',
        'letters.cancelled.by-me': 'Tenho de cancelar {service}, {when}. Lamento. Nada é devido.',
        'letters.cancelled.by-you': 'Cancelado: {service}, {when}.',
        'door.my.booked': 'Confirmado',
        'door.my.waiting': 'Recebido',
        'door.write.thanks': 'Recebido',
      },
    },
  },
]

/** Every sentence that some voice says in its own way. */
export const VOICED: readonly string[] = [
  ...new Set(VOICES.flatMap(({ words }) => Object.values(words).flatMap((said) => Object.keys(said)))),
]
