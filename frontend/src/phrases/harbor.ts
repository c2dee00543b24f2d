import { addTexts } from '.'
import texts from './en/harbor.json'

addTexts('harbor', texts)

export { phrase } from '.'
