import { addTexts } from '.'
import texts from './en/charging.json'

addTexts('charging', texts)

export { phrase } from '.'
