import { beginSequence, ownTexts, type Practice, type Translated } from '@acolhida/core/practice'
import { duration, time } from '@acolhida/core/time'

/** What the practice says in Portuguese, by the keys of its texts; a few are still to be written. */
const PORTUGUESE: Readonly<Record<string, string>> = {
  'profile/headline': 'Voz e leitura em voz alta · Coimbra e à distância',
  'profile/pronouns': 'ela',
  'profile/about':
    'Há vinte anos que trabalho com quem precisa da voz: professores, guias, quem lê em voz alta. Primeiro ouço, e começamos pelo que a cansa.',
  'profile/greeting':
    'Seja bem-vindo, seja bem-vinda. Escolha ao que vem; primeiro algumas perguntas, para que o tempo que passamos seja o certo.',
  'service/first-conversation/name': 'Primeira conversa',
  'service/first-conversation/description':
    'Vinte minutos por vídeo, sem custos. Diz-me o que procura, e eu digo-lhe com franqueza se posso ajudar.',
  'service/voice-assessment/name': 'Avaliação da voz',
  'service/voice-assessment/description':
    'Ouvimos a sua voz com atenção, a falar e a ler, e leva para casa um plano para as próximas semanas.',
  'service/voice-assessment/extra/recording': 'Uma gravação para levar',
  'service/voice-assessment/extra/warm-up': 'Um aquecimento mais longo',
  'service/voice-assessment/before':
    'Por favor, leia em voz alta a página que lhe envio, uma vez por dia, e traga as suas perguntas.',
  'service/reading-aloud/name': 'Ler em voz alta',
  'service/reading-aloud/description':
    'Um grupo pequeno para quem lê para outros. Seis lugares, um texto, noventa minutos num sábado de manhã.',
  'place/studio/name': 'no estúdio em Coimbra',
  'place/video/name': 'por vídeo',
  'questions/first-questions/brings/text': 'O que o traz, o que a traz aqui?',
  'questions/first-questions/brings/help': 'Bastam poucas palavras.',
  'questions/first-questions/for-whom/text': 'De que voz se trata?',
  'questions/first-questions/for-whom/mine': 'Da minha',
  'questions/first-questions/for-whom/child': 'Da do meu filho, da minha filha',
  'questions/first-questions/for-whom/team': 'Da de uma equipa ou turma',
  'questions/first-questions/age/text': 'Que idade tem?',
  'questions/first-questions/age/unit': 'anos',
  'questions/first-questions/occasion/text': 'Há uma data para a qual se prepara?',
  'questions/first-questions/page/text': 'Há uma página onde o possa ver ou ouvir?',
  'questions/first-questions/health/text': 'Há alguma coisa sobre a sua saúde que eu deva saber?',
  'questions/first-questions/rule/young-child':
    'As vozes novas crescem tão depressa que pertencem a quem trabalha com crianças todos os dias. Eu não faria justiça à sua.',
  'questions/voice-questions/brings/text': 'O que o traz, o que a traz aqui?',
  'questions/voice-questions/brings/help': 'Por palavras suas; uma ou duas frases.',
  'questions/voice-questions/uses/text': 'Onde precisa da sua voz?',
  'questions/voice-questions/uses/teaching': 'A ensinar',
  'questions/voice-questions/uses/stage': 'Num palco',
  'questions/voice-questions/uses/calls': 'Ao telefone',
  'questions/voice-questions/uses/singing': 'A cantar',
  'questions/voice-questions/uses/elsewhere': 'Noutro lugar',
  'questions/voice-questions/hoarse/text': 'Há quanto tempo está com rouquidão?',
  'questions/voice-questions/hoarse/not': 'Não estou com rouquidão',
  'questions/voice-questions/hoarse/short': 'Até 3 semanas',
  'questions/voice-questions/hoarse/long': 'Mais de 3 semanas',
  'questions/voice-questions/doctor/text': 'Algum médico lhe viu a garganta?',
  'questions/voice-questions/strain/text': 'Como está a sua voz ao fim do dia?',
  'questions/voice-questions/strain/least': 'nada cansada',
  'questions/voice-questions/strain/most': 'falha-me',
  'questions/voice-questions/practical/text': 'O lado prático',
  'questions/voice-questions/practical/help': 'Depois escolhe uma hora.',
  'questions/voice-questions/price/text': '95 € por uma avaliação:',
  'questions/voice-questions/price/fine': 'Está bem',
  'questions/voice-questions/price/parts': 'Em duas partes, por favor',
  'questions/voice-questions/price/too-much': 'É mais do que posso pagar',
  'questions/voice-questions/summary/text': 'Quer depois um resumo escrito, por 18 €?',
  'questions/voice-questions/sample/text': 'Uma gravação da sua voz, se tiver',
  'questions/voice-questions/sample/help': 'Meio minuto a ler em voz alta chega.',
  'questions/voice-questions/came/text': 'Como chegou até mim?',
  'questions/voice-questions/rule/written-summary': 'Resumo escrito',
  'text/day-before/subject': 'Amanhã: {service}, {start}',
  'text/day-before/body':
    'Só para lembrar: {service} é em {when}.\n\n{place}\n\nVou lá estar: {coming}\nMudar: {move}\nCancelar: {cancel}',
  'text/hours-before/body': '{service} hoje às {time}. {link}',
  'text/afterwards/subject': 'Foi bom recebê-lo, foi bom recebê-la',
  'text/afterwards/body':
    'Agradeço que tenha vindo a {service}. Se alguma coisa ficou por dizer, basta responder a este email.',
}

/** The practice as it speaks: sequences around its services, a second language, and quiet nights. */
export function withMessages(practice: Practice): Practice {
  let n = 0
  const begin = (key: 'careful' | 'groups', texts: Practice['texts'] = []) =>
    beginSequence(key, { texts, ids: () => `demo-${key}-${++n}` })
  const careful = begin('careful')
  const groups = begin('groups', careful.texts)
  const services = practice.services.map((service) => ({
    ...service,
    ...(service.seats > 1
      ? { sequence: groups.sequence.id }
      : service.price.kind === 'free'
        ? {}
        : { sequence: careful.sequence.id }),
    ...(service.id === 'voice-assessment'
      ? {
          before: {
            text: 'Please read the page I send you aloud, once a day, and bring your questions.',
            tick: true,
            by: duration('PT12H'),
          },
        }
      : {}),
  }))
  const spoken: Practice = {
    ...practice,
    services,
    sequences: [careful.sequence, groups.sequence],
    texts: [...careful.texts, ...groups.texts],
    messaging: {
      quiet: { from: time('21:00'), to: time('07:30') },
      sender: 'Iria',
      own: { digest: time('07:45'), before: [{ by: duration('PT1H'), channel: 'email' }] },
    },
    languages: ['pt'],
  }
  const pt: Record<string, Translated> = {}
  for (const { key, text } of ownTexts(spoken)) {
    const said = PORTUGUESE[key]
    if (said) pt[key] = { text: said, of: text }
  }
  return { ...spoken, translated: { pt } }
}
