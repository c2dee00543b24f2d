import { addTexts } from '.'
import texts from './en/trial.json'

addTexts('trial', texts)

export { phrase } from '.'
