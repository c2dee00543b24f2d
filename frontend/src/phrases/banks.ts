import { addTexts } from '.'
import texts from './en/banks.json'

addTexts('banks', texts)

export { phrase } from '.'
