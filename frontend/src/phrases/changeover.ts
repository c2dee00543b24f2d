import { addTexts } from './index'
import texts from './en/changeover.json'

addTexts('changeover', texts)
export { phrase } from './index'
