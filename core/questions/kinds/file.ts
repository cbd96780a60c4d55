import { distinct, one as oneOfThese, whole } from '../../shape/shape.ts'
import { listed } from '../../words/index.ts'
import type { FileKind } from '../base.ts'
import { FILE_KINDS, kindOfFileWords, LARGEST_FILE, sizeInWords } from '../file-kinds.ts'
import { isAttached } from '../values.ts'
import { FHIR, type Kind, numberIn } from './kind.ts'

export interface File {
  accepts: FileKind[]
  /** In bytes. */
  mostBytes: number
}

/** Kinds of files as media types (RFC 6838). */
const MEDIA_TYPES: Record<FileKind, string[]> = {
  picture: ['image/png', 'image/jpeg', 'image/webp'],
  pdf: ['application/pdf'],
  sound: ['audio/mpeg', 'audio/mp4', 'audio/ogg', 'audio/wav'],
  text: ['text/plain'],
}
const MEGABYTE = 1_048_576
export const fileKind = oneOfThese('picture', 'pdf', 'sound', 'text')

/** A file. */
export const fileKindOfQuestion: Kind<File> = {
  name: 'A file',
  asks: true,
  shape: { accepts: distinct(fileKind, 4, 1), mostBytes: whole(1_024, LARGEST_FILE) },
  settings: [
    { key: 'accepts', label: 'What may come', is: 'files' },
    { key: 'mostBytes', label: 'At most', is: 'kilobytes' },
  ],
  begin: () => ({ accepts: ['picture', 'pdf'], mostBytes: 2 * MEGABYTE }),
  problem: (question, value) => {
    if (!isAttached(value)) return { code: 'no-file' }
    if (!question.accepts.includes(value.type))
      return {
        code: 'file-kind',
        data: {
          name: value.name,
          kind: kindOfFileWords(value.type),
          kinds: listed(question.accepts.map(kindOfFileWords), 'or'),
        },
      }
    return value.size > question.mostBytes
      ? {
          code: 'file-size',
          data: { name: value.name, size: sizeInWords(value.size), most: sizeInWords(question.mostBytes) },
        }
      : undefined
  },
  words: (_, value) => (isAttached(value) ? `${value.name} (${sizeInWords(value.size)})` : String(value)),
  ways: ({ accepts }) => [[{ file: 'file', name: 'a file', type: accepts[0] ?? 'picture', size: 1 }, 1]],
  impossible: ({ accepts }) =>
    accepts.length === 0 ? 'No answer is possible: please say which kinds of file may come.' : undefined,
  compares: ['answered'],
  first: () => '',
  typed: 'text',
  fhir: {
    write: ({ accepts, mostBytes }) => ({
      item: { type: 'attachment' },
      extension: [
        { url: FHIR.maxSize, valueDecimal: mostBytes / MEGABYTE },
        ...accepts.flatMap((kind) =>
          MEDIA_TYPES[kind].map((type) => ({ url: FHIR.mimeType, valueCode: type })),
        ),
      ],
      kept: ['accepts', 'mostBytes'],
    }),
    as: ['attachment'],
    reads: ({ type }) => type === 'attachment',
    read: ({ extension = [] }) => {
      const types = extension.flatMap((extension) =>
        extension.url === FHIR.mimeType ? (extension.valueCode ?? []) : [],
      )
      const accepts = FILE_KINDS.filter((kind) => MEDIA_TYPES[kind].some((type) => types.includes(type)))
      const size = numberIn(extension, FHIR.maxSize)
      return {
        accepts: accepts.length > 0 ? accepts : ['picture', 'pdf'],
        mostBytes: Math.min(LARGEST_FILE, Math.max(1_024, Math.round((size ?? 2) * MEGABYTE))),
      }
    },
    respond: (_, value) =>
      isAttached(value) ? { answer: [{ valueAttachment: { title: value.name, size: value.size } }] } : {},
  },
}
