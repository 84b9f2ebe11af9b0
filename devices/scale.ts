import { main } from './program'

main(['scale'])
