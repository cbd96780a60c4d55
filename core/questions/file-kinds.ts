import { answerWord } from '../words/index.ts'
import type { FileKind } from './base.ts'

/** The kinds of files that can be asked for. */
export const FILE_KINDS: readonly FileKind[] = ['picture', 'pdf', 'sound', 'text']

/** A kind of file in words. */
export const kindOfFileWords = (kind: FileKind): string => answerWord('kind-of-file', { kind })

/** No file may be larger than this, in bytes. */
export const LARGEST_FILE = 5 * 1024 * 1024

/** A size in bytes in words. */
export const sizeInWords = (bytes: number): string =>
  bytes >= 1_048_576 ? `${(bytes / 1_048_576).toFixed(1)} MB` : `${Math.max(1, Math.round(bytes / 1024))} KB`

const at = (bytes: Uint8Array, from: number, text: string): boolean =>
  [...text].every((char, i) => bytes[from + i] === char.charCodeAt(0))

/**
 * What kind a file is, by how it begins; nothing when it is none of those that can be asked for. The marks are
 * those of PNG (ISO/IEC 15948), JPEG (ISO/IEC 10918-1), PDF (ISO 32000-1, 7.5.2), ISO/IEC 14496-12 (`ftyp`), Ogg
 * (RFC 3533), RIFF for WebP and WAV, and an ID3 tag or a frame's sync word for MP3; from memory.
 */
export function kindOfFile(bytes: Uint8Array): FileKind | undefined {
  if (bytes[0] === 0x89 && at(bytes, 1, 'PNG\r\n')) return 'picture'
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return 'picture'
  if (at(bytes, 0, 'RIFF') && at(bytes, 8, 'WEBP')) return 'picture'
  if (at(bytes, 0, '%PDF-')) return 'pdf'
  if (at(bytes, 0, 'OggS') || at(bytes, 0, 'ID3') || (at(bytes, 0, 'RIFF') && at(bytes, 8, 'WAVE')))
    return 'sound'
  if (at(bytes, 4, 'ftypM4A')) return 'sound'
  if (bytes[0] === 0xff && ((bytes[1] ?? 0) & 0xe6) === 0xe2) return 'sound'
  // Plain text holds no control characters but those that space it.
  const plain =
    bytes.length > 0 && bytes.every((byte) => byte >= 32 || byte === 9 || byte === 10 || byte === 13)
  return plain ? 'text' : undefined
}
