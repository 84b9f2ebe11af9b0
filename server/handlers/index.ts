import type { Handlers } from '../utils/route'
import { data } from './data'
import { foods } from './foods'
import { home } from './home'
import { pictures } from './pictures'
import { pages } from './pages'
import { shelf } from './shelf'
import { workshop } from './workshop'

/** What answers each route of `shared/api`; one that nobody answers does not compile. */
export const HANDLERS: Handlers = { ...pages, ...shelf, ...workshop, ...foods, ...data, ...home, ...pictures }
