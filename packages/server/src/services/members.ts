import { MOST_MEMBERS, type AddedMember, type Member, type NewMember } from '@unhurried/contract'
import { hash } from '@node-rs/argon2'
import { randomInt } from 'node:crypto'
import type { DataSource, EntityManager } from 'typeorm'
import { Problem } from '../problems/problem.ts'

/** Letters and digits that are not taken for one another when they are read aloud or copied by hand. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789'
const [GROUPS, OF] = [4, 4]

/** A first password, to be handed on: sixteen letters, about 79 bits. */
const freshPassword = (): string =>
  Array.from({ length: GROUPS }, () =>
    Array.from({ length: OF }, () => LETTERS[randomInt(LETTERS.length)]).join(''),
  ).join('-')

/** Who may see and change a film. */
export function memberService(source: DataSource) {
  const of = async (film: string, on: DataSource | EntityManager = source): Promise<Member[]> =>
    on.query(
      `SELECT a.id AS account, a.name, a.email, m.role FROM members m JOIN accounts a ON a.id = m.account_id
       WHERE m.film_id = $1 ORDER BY m.role = 'owner' DESC, lower(a.name), a.id`,
      [film],
    )

  return {
    of,

    /**
     * Lets somebody in, or gives who is in another part. Who has no account yet gets one, and a password to be handed on, which is told this once. The owner stays the owner.
     */
    async add(film: string, { email, name, role }: NewMember): Promise<AddedMember> {
      const address = email.toLowerCase()
      const password = freshPassword()
      const passwordHash = await hash(password)
      return source.transaction(async tx => {
        await tx.query('SELECT 1 FROM films WHERE id = $1 FOR UPDATE', [film])
        const before = await of(film, tx)
        const known = before.find(one => one.email === address)
        if (known?.role === 'owner') throw new Problem('bad-request', 'The owner of a film stays its owner.')
        if (!known && before.length >= MOST_MEMBERS) {
          throw new Problem('bad-request', `A film has at most ${MOST_MEMBERS} people.`)
        }
        const made: unknown[] = await tx.query(
          `INSERT INTO accounts (email, name, password_hash) VALUES ($1, $2, $3) ON CONFLICT (email) DO NOTHING RETURNING id`,
          [address, name, passwordHash],
        )
        await tx.query(
          `INSERT INTO members (film_id, account_id, role) SELECT $1, id, $3 FROM accounts WHERE email = $2
           ON CONFLICT (film_id, account_id) DO UPDATE SET role = excluded.role`,
          [film, address, role],
        )
        const member = (await of(film, tx)).find(one => one.email === address)
        if (!member) throw new Error('a member that was let in is not there')
        return { member, password: made.length > 0 ? password : null }
      })
    },

    /** Lets somebody go: the film is not there for them any more. The owner stays. */
    async remove(film: string, account: string): Promise<void> {
      const gone: [unknown[], number] = await source.query(
        `DELETE FROM members WHERE film_id = $1 AND account_id = $2 AND role <> 'owner'`,
        [film, account],
      )
      if (gone[1] === 0) throw new Problem('not-found', 'There is nobody like that here who could be let go.')
    },
  }
}

export type MemberService = ReturnType<typeof memberService>
