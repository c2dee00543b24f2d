import { addTexts } from '.'
import texts from './en/rig.json'

addTexts('rig', texts)

export { phrase } from '.'
