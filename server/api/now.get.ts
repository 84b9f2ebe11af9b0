import { nowPage } from '#server/services/pages'

export default route((_, context) => nowPage(context))
