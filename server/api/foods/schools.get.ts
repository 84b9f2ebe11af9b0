export default route((_event, { foods }) => foods.schools)
