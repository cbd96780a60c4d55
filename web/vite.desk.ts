import { application } from './vite.shared.ts'

export default application('desk', 4191, 4181)
