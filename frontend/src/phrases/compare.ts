import { addTexts } from '.'
import texts from './en/compare.json'

addTexts('compare', texts)

export { phrase } from '.'
