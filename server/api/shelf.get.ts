import { shelfPage } from '#server/services/pages'

export default route((_, context) => shelfPage(context))
