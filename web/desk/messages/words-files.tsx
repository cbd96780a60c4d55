import { LONGEST_WORDS, type WordsFile, wordsFile, wordsOut } from '@acolhida/core/formats/words-file'
import { ownTexts, type Practice } from '@acolhida/core/practice'
import { BadData, letIn } from '@acolhida/core/schemas'
import { type Language, languageName } from '@acolhida/core/time'
import { sentenceFaults } from '@acolhida/core/words/check'
import { useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { FileButton, saveFile } from '../parts/file.tsx'
import { counted } from '../parts/words.ts'
import { sentencesFor } from './books.ts'

/** What a file of words holds that can be taken, after every sentence in it was looked at. @throws BadData */
async function readWords(source: string, name: string, practice: Practice): Promise<WordsFile> {
  const what = `The file “${name}”`
  const bad = (path: string, message: string): BadData => new BadData(what, [{ path, message }])
  if (source.length > LONGEST_WORDS) throw bad('', 'is larger than any file of words')
  let value: unknown
  try {
    value = JSON.parse(source)
  } catch (error) {
    throw bad('', `is not JSON: ${(error as Error).message}`)
  }
  const file = letIn<WordsFile>(wordsFile, value, what)
  const ours = new Map((await sentencesFor(file.language)).map(({ key, message }) => [key, message]))
  for (const [key, said] of Object.entries(file.sentences)) {
    const message = ours.get(key)
    if (!message) throw bad(`sentences.${key}`, 'There is no such sentence.')
    const [fault] = sentenceFaults(said, message)
    if (fault) throw bad(`sentences.${key}`, fault)
  }
  const texts = new Set(ownTexts(practice).map(({ key }) => key))
  const strange = Object.keys(file.texts).find((key) => !texts.has(key))
  if (strange) throw bad(`texts.${strange}`, 'There is no such text of yours.')
  return file
}

/** One's own words in a language as a file: out, for somebody who translates; and in, once looked at. */
export function WordsFiles({ practice, language }: { practice: Practice; language: Language }) {
  const [found, setFound] = useState<WordsFile>()
  return (
    <section className="sheet grid gap-3 p-5" aria-label="In a file">
      <h2>In a file</h2>
      <p className="text-[14px] text-soft">
        Your own sentences and texts in {languageName(language)}, for whoever translates them.
      </p>
      <div className="flex flex-wrap gap-2.5">
        <button
          type="button"
          className="press"
          onClick={() =>
            saveFile(
              `words-${language}.json`,
              'application/json',
              `${JSON.stringify(wordsOut(practice, language), null, 2)}\n`,
            )
          }
        >
          Save these words
        </button>
        <FileButton
          accept=".json,application/json"
          onFile={async (file) => {
            setFound(undefined)
            setFound(await readWords(await file.text(), file.name, practice))
          }}
        >
          Take words from a file
        </FileButton>
      </div>
      {found && (
        <div className="note bg-tile-soft text-tile-ink">
          <p>
            {counted(Object.keys(found.sentences).length, 'sentence', 'sentences')} and{' '}
            {counted(Object.keys(found.texts).length, 'text', 'texts')} in {languageName(found.language)}.
            They take the place of those there are.
          </p>
          <ActButton
            className="press press-go mt-2"
            onAct={() =>
              changePractice(db, 'words taken from a file', (p) => ({
                ...p,
                words: { ...p.words, [found.language]: found.sentences },
                translated: { ...p.translated, [found.language]: found.texts },
              }))
            }
            then={() => setFound(undefined)}
          >
            Take them
          </ActButton>
        </div>
      )}
    </section>
  )
}
