import * as z from 'zod'
import { writeFoodFile } from '#server/foods/foodFileText'
import { exportFoods } from '#server/services/foods'

const query = z.object({ food: z.string().max(60).optional() })

export default route((event, context) => {
  const text = writeFoodFile(exportFoods(context, readQuery(event, query).food))
  setResponseHeader(event, 'content-type', 'application/yaml; charset=utf-8')
  setResponseHeader(event, 'content-disposition', 'attachment; filename="dulse-foods.yaml"')
  return text
})
