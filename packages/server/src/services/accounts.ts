import { hash, verify } from '@node-rs/argon2'
import { FRESH_HABITS, Habits, type Account } from '@unhurried/contract'
import { createHash, randomBytes } from 'node:crypto'
import type { DataSource } from 'typeorm'
import { AccountRow, SessionRow } from '../db/entities.ts'
import { Problem } from '../problems/problem.ts'

/** A session ends after this many days without signing in anew. */
const SESSION_DAYS = 30
const DAY_MS = 86_400_000

export interface NewAccount {
  email: string
  name: string
  password: string
}

/** Who is signed in, and by which session: its hash names it. */
export interface Visit {
  readonly account: Account
  readonly session: string
  readonly expiresAt: Date
}

const toAccount = ({ id, name, email }: Account): Account => ({ id, name, email })
const fingerprint = (token: string) => createHash('sha256').update(token).digest('hex')

/** Compared against when there is no such account, so that the answer takes as long. */
let nobody: Promise<string> | undefined

export function accountService(source: DataSource) {
  const accounts = source.getRepository(AccountRow)
  const sessions = source.getRepository(SessionRow)

  return {
    isEmpty: async () => (await accounts.count()) === 0,

    async create({ email, name, password }: NewAccount): Promise<Account> {
      const passwordHash = await hash(password)
      return toAccount(await accounts.save({ email: email.toLowerCase(), name, passwordHash }))
    },

    /** The first account of a fresh installation. Refused once there is one, also when two ask at the same moment. */
    async createOwner(wanted: NewAccount): Promise<Account> {
      const passwordHash = await hash(wanted.password)
      return source.transaction(async tx => {
        await tx.query('LOCK TABLE accounts IN EXCLUSIVE MODE')
        if ((await tx.count(AccountRow)) > 0) throw new Problem('already-set-up', 'This desk already has an owner.')
        const row = { email: wanted.email.toLowerCase(), name: wanted.name, passwordHash }
        return toAccount(await tx.save(AccountRow, row))
      })
    },

    /** The account an address and a password belong to; the same refusal for a wrong one of either. */
    async check(email: string, password: string): Promise<Account> {
      const row = await accounts.findOneBy({ email: email.toLowerCase() })
      nobody ??= hash(randomBytes(16).toString('hex'))
      const fits = await verify(row?.passwordHash ?? (await nobody), password)
      if (!row || !fits) throw new Problem('wrong-sign-in', 'E-mail address and password do not belong together.')
      return toAccount(row)
    },

    /** Opens a session and answers with the token for its cookie. */
    async openSession(account: Account): Promise<{ token: string; expiresAt: Date }> {
      const token = randomBytes(32).toString('base64url')
      const expiresAt = new Date(Date.now() + SESSION_DAYS * DAY_MS)
      await sessions.save({ tokenHash: fingerprint(token), accountId: account.id, expiresAt })
      await sessions.createQueryBuilder().delete().where('expires_at < now()').execute()
      return { token, expiresAt }
    },

    /** Gives an account another password. Every session of it but one ends. */
    async setPassword(account: Account, fresh: string, session: string): Promise<void> {
      const passwordHash = await hash(fresh)
      await source.transaction(async tx => {
        await tx.update(AccountRow, account.id, { passwordHash })
        await tx.query('DELETE FROM sessions WHERE account_id = $1 AND token_hash <> $2', [account.id, session])
      })
    },

    async closeSession(token: string): Promise<void> {
      await sessions.delete({ tokenHash: fingerprint(token) })
    },

    /** How an account likes to sit; what is not kept, or cannot be read any more, is as it came. */
    async habitsOf(account: Account): Promise<Habits> {
      const row = await accounts.findOneBy({ id: account.id })
      const kept = Habits.safeParse({ ...FRESH_HABITS, ...row?.habits })
      return kept.success ? kept.data : FRESH_HABITS
    },

    async keepHabits(account: Account, habits: Habits): Promise<void> {
      await accounts.update({ id: account.id }, { habits })
    },

    /** Whose session a token opens, or null. */
    async visitOf(token: string): Promise<Visit | null> {
      const [row]: (Account & { session: string; expires_at: Date })[] = await source.query(
        `SELECT a.id, a.name, a.email, s.token_hash AS session, s.expires_at
         FROM sessions s JOIN accounts a ON a.id = s.account_id WHERE s.token_hash = $1 AND s.expires_at > now()`,
        [fingerprint(token)],
      )
      return row ? { account: toAccount(row), session: row.session, expiresAt: row.expires_at } : null
    },
  }
}

export type AccountService = ReturnType<typeof accountService>
