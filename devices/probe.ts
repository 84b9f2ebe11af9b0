import { main } from './program'

main(['probe'])
