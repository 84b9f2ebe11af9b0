import { InputError } from '#core/errors'
import { readFoodFile, withLine } from '#server/foods/foodFileText'
import { importFoods } from '#server/services/foods'

/** A few hundred foods. */
const MOST_KB = 512

/** A file of foods, YAML or JSON as text; all of it is taken in, or nothing. */
export default route(async (event, context) => {
  const type = getRequestHeader(event, 'content-type') ?? ''
  if (!/^(?:application\/(?:yaml|json)|text\/yaml)\b/i.test(type))
    throw new InputError([
      { field: 'content-type', code: 'send-file-foods-as', message: 'Send a file of foods as application/yaml or application/json.' },
    ])
  const { file, lineOf } = readFoodFile(await readText(event, MOST_KB))
  try {
    return importFoods(context, file)
  } catch (error) {
    if (error instanceof InputError) throw new InputError(error.problems.map(problem => withLine(problem, lineOf)))
    throw error
  }
})
