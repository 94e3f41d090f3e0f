import Router from '@koa/router'
import { Habits, SetUp, SignIn, type Account, type SessionState } from '@unhurried/contract'
import type { Middleware } from 'koa'
import type { AccountService } from '../services/accounts.ts'
import type { Context, RequestState } from './context.ts'
import { parse, Problem } from './problem.ts'

const COOKIE = 'desk_session'

/** Finds out who is asking. */
export function whoIsThere(accounts: AccountService): Middleware<RequestState> {
  return async (ctx, next) => {
    const token = ctx.cookies.get(COOKIE)
    ctx.state.account = token && ctx.path.startsWith('/api/') ? await accounts.accountOf(token) : null
    await next()
  }
}

/** The account asking; refuses when nobody is signed in. */
export function signedIn(ctx: Context): Account {
  if (!ctx.state.account) throw new Problem('not-signed-in', 'Please sign in first.')
  return ctx.state.account
}

export interface Demo {
  email: string
  password: string
}

export function sessionRoutes(
  accounts: AccountService,
  demo: Demo | null,
  limitSignIns: Middleware,
): Router<RequestState> {
  const router = new Router<RequestState>()

  async function state(account: Account | null): Promise<SessionState> {
    return { account, needsOwner: !account && (await accounts.isEmpty()), demo: account ? null : demo }
  }

  async function enter(ctx: Context, account: Account): Promise<void> {
    const { token, expiresAt } = await accounts.openSession(account)
    ctx.cookies.set(COOKIE, token, { httpOnly: true, sameSite: 'strict', secure: ctx.secure, expires: expiresAt })
    ctx.body = await state(account)
  }

  router.get('/api/session', async ctx => {
    ctx.body = await state(ctx.state.account)
  })
  router.post('/api/session', limitSignIns, async ctx => {
    const { email, password } = parse(SignIn, ctx.request.body)
    await enter(ctx, await accounts.check(email, password))
  })
  router.post('/api/owner', limitSignIns, async ctx => {
    const wanted = parse(SetUp, ctx.request.body)
    if (!(await accounts.isEmpty())) throw new Problem('already-set-up', 'This desk already has an owner.')
    await enter(ctx, await accounts.createOwner(wanted))
  })
  router.delete('/api/session', async ctx => {
    const token = ctx.cookies.get(COOKIE)
    if (token) await accounts.closeSession(token)
    ctx.cookies.set(COOKIE, null)
    ctx.body = await state(null)
  })
  router.get('/api/habits', async ctx => {
    ctx.body = await accounts.habitsOf(signedIn(ctx))
  })
  router.put('/api/habits', async ctx => {
    const account = signedIn(ctx)
    await accounts.keepHabits(account, parse(Habits, ctx.request.body))
    ctx.body = {}
  })
  return router
}
