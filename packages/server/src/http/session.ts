import Router from '@koa/router'
import { Habits, NewPassword, SetUp, SignIn, type Account, type SessionState } from '@unhurried/contract'
import type { Middleware } from 'koa'
import type { Logger } from 'pino'
import type { AccountService } from '../services/accounts.ts'
import { json } from './body.ts'
import type { Context, RequestState } from './context.ts'
import { parse, Problem } from '../problems/problem.ts'

/** Every command with keys of its own fits. */
const LARGEST_HABITS = 64 * 1024

/** Over TLS the name itself binds the cookie to this host and to TLS. */
const cookieName = (ctx: Context) => (ctx.secure ? '__Host-desk_session' : 'desk_session')

/** Finds out who is asking. */
export function whoIsThere(accounts: AccountService): Middleware<RequestState> {
  return async (ctx, next) => {
    const token = ctx.path.startsWith('/api/') ? ctx.cookies.get(cookieName(ctx)) : undefined
    ctx.state.visit = token ? await accounts.visitOf(token) : null
    await next()
  }
}

/** The account asking; refuses when nobody is signed in. */
export function signedIn(ctx: Context): Account {
  if (!ctx.state.visit) throw new Problem('not-signed-in', 'Please sign in first.')
  return ctx.state.visit.account
}

export interface Demo {
  email: string
  password: string
}

export function sessionRoutes(
  accounts: AccountService,
  demo: Demo | null,
  limitSignIns: Middleware,
  log: Logger,
): Router<RequestState> {
  const router = new Router<RequestState>()

  async function state(account: Account | null): Promise<SessionState> {
    return { account, needsOwner: !account && (await accounts.isEmpty()), demo: account ? null : demo }
  }

  async function enter(ctx: Context, account: Account): Promise<void> {
    const { token, expiresAt } = await accounts.openSession(account)
    ctx.cookies.set(cookieName(ctx), token, {
      httpOnly: true,
      sameSite: 'strict',
      secure: ctx.secure,
      path: '/',
      expires: expiresAt,
    })
    log.info({ event: 'signed-in', account: account.id, ip: ctx.ip }, 'signed in')
    ctx.body = await state(account)
  }

  router.get('/api/session', async ctx => {
    ctx.body = await state(ctx.state.visit?.account ?? null)
  })
  router.post('/api/session', limitSignIns, async ctx => {
    const { email, password } = parse(SignIn, await json(ctx))
    try {
      await enter(ctx, await accounts.check(email, password))
    } catch (error) {
      if (error instanceof Problem) log.warn({ event: 'sign-in-failed', ip: ctx.ip }, 'a sign-in failed')
      throw error
    }
  })
  router.post('/api/owner', limitSignIns, async ctx => {
    const wanted = parse(SetUp, await json(ctx))
    if (!(await accounts.isEmpty())) throw new Problem('already-set-up', 'This desk already has an owner.')
    await enter(ctx, await accounts.createOwner(wanted))
  })
  router.delete('/api/session', async ctx => {
    const token = ctx.cookies.get(cookieName(ctx))
    if (token) await accounts.closeSession(token)
    ctx.cookies.set(cookieName(ctx), null, { path: '/', secure: ctx.secure })
    const account = ctx.state.visit?.account.id
    if (account) log.info({ event: 'signed-out', account, ip: ctx.ip }, 'signed out')
    ctx.body = await state(null)
  })
  router.put('/api/password', limitSignIns, async ctx => {
    const { email } = signedIn(ctx)
    const { password, fresh } = parse(NewPassword, await json(ctx))
    const account = await accounts.check(email, password)
    await accounts.setPassword(account, fresh, ctx.state.visit?.session ?? '')
    log.info({ event: 'password-changed', account: account.id, ip: ctx.ip }, 'a password was changed')
    ctx.body = {}
  })
  router.get('/api/habits', async ctx => {
    ctx.body = await accounts.habitsOf(signedIn(ctx))
  })
  router.put('/api/habits', async ctx => {
    const account = signedIn(ctx)
    await accounts.keepHabits(account, parse(Habits, await json(ctx, LARGEST_HABITS)))
    ctx.body = {}
  })
  return router
}
