import { main } from './program'

main()
