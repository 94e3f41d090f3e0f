import type { Account } from '@unhurried/contract'
import type { DefaultContext, DefaultState, ParameterizedContext } from 'koa'

/** What the outer layers find out about a request and the routes rely on. */
export interface RequestState extends DefaultState {
  account: Account | null
}

export type Context = ParameterizedContext<RequestState, DefaultContext, unknown>
