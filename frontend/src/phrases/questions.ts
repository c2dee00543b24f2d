import { addTexts } from '.'
import texts from './en/questions.json'

addTexts('questions', texts)

export { phrase } from '.'
