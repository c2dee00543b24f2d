import { addTexts } from './index'
import texts from './en/log.json'

addTexts('log', texts)
export { phrase } from './index'
