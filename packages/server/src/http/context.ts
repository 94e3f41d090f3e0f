import type { DefaultContext, DefaultState, ParameterizedContext } from 'koa'
import type { Visit } from '../services/accounts.ts'

/** What the outer layers find out about a request and the routes rely on. */
export interface RequestState extends DefaultState {
  visit: Visit | null
}

export type Context = ParameterizedContext<RequestState, DefaultContext, unknown>
