import { householdOf } from '#server/services/context'

export default route((_, context) => householdOf(context))
