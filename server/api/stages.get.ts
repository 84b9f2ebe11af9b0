import { stageBand } from '#server/services/pages'

export default route((_, context) => stageBand(context))
