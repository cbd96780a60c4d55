import type { Attached, Question } from '@acolhida/core/questions'
import { createContext, useContext } from 'react'

/** Takes a file that answers a question, and gives what stands for it. @throws Error with a sentence */
export type TakeFile = (question: Question, file: File) => Promise<Attached>

/** Where files go: at the door to the relay, at the desk into its own browser; nowhere while one only tries. */
export const FileTaker = createContext<TakeFile | undefined>(undefined)

export const useFileTaker = (): TakeFile | undefined => useContext(FileTaker)
