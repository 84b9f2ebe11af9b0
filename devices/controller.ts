import { main } from './program'

main(['controller'])
