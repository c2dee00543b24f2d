import { addTexts } from '.'
import texts from './en/need.json'

addTexts('need', texts)

export { phrase } from '.'
