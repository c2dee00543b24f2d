import { addTexts } from '.'
import texts from './en/shared.json'

addTexts('shared', texts)

export { phrase } from '.'
