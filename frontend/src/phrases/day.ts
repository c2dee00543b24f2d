import { addTexts } from '.'
import texts from './en/day.json'

addTexts('day', texts)

export { phrase } from '.'
