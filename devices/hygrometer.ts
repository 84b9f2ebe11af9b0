import { main } from './program'

main(['hygrometer'])
