import { incomingKind } from '@unhurried/core/assets'
import { TELEPHONE, type AtTelephone, type FromTelephone, type Telephone } from '@unhurried/contract'
import { createHash, randomBytes } from 'node:crypto'
import type { DataSource } from 'typeorm'
import { Problem } from '../problems/problem.ts'
import type { AccessService } from './access.ts'

const TOKEN_BYTES = 32
const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex')
/** As much of a file as tells what it is. */
const HEAD_BYTES = 64 * 1024
const PHOTOGRAPHS: ReadonlySet<string | null> = new Set(['jpeg', 'png', 'webp'])

const gone = () => new Problem('not-found', 'This code is no longer good. Ask for a new one at the desk.')

interface Row {
  id: string
  shot_id: string
  account_id: string
  seconds: number
}
const COLUMNS = 'id, shot_id, account_id, ceil(extract(epoch FROM until - now()))::int AS seconds'

/**
 * Telephones that send photographs into one shot, for some minutes, without signing in: whoever holds the code may send and nothing else. What
 * has been sent is kept until the time is over, and is no part of the shot until the desk makes drawings of it.
 */
export function telephoneService(source: DataSource, access: AccessService) {
  /** Whose code it is; throws a Problem where it is none, its time is over, or who asked for it may not draw there any more. */
  async function holder(token: string) {
    const [row]: Row[] = await source.query(
      `SELECT ${COLUMNS} FROM telephones WHERE token_hash = $1 AND until > now()`,
      [hashOf(token)],
    )
    if (!row) throw gone()
    const { shot, film } = await access.toShot(row.account_id, row.shot_id, 'draw')
    return { row, shot, film }
  }

  async function ofDesk(account: string, shot: string, id: string): Promise<Row> {
    const [row]: Row[] = await source.query(
      `SELECT ${COLUMNS} FROM telephones WHERE id = $1 AND shot_id = $2 AND account_id = $3 AND until > now()`,
      [id, shot, account],
    )
    if (!row) throw gone()
    return row
  }

  async function sent({ id, seconds }: Row): Promise<FromTelephone> {
    const photos: FromTelephone['photos'] = await source.query(
      'SELECT id, taken FROM telephone_photos WHERE telephone_id = $1 ORDER BY place',
      [id],
    )
    return { seconds, photos }
  }

  return {
    /** Lets a telephone send into a shot. One at a time: another that the same account had there is let go. */
    async open(account: string, shot: string): Promise<Telephone> {
      const token = randomBytes(TOKEN_BYTES).toString('base64url')
      return source.transaction(async tx => {
        await tx.query('DELETE FROM telephones WHERE account_id = $1 AND shot_id = $2', [account, shot])
        const [row]: { id: string }[] = await tx.query(
          `INSERT INTO telephones (token_hash, shot_id, account_id, until) VALUES ($1, $2, $3, now() + interval '${TELEPHONE.minutes} minutes') RETURNING id`,
          [hashOf(token), shot, account],
        )
        return { id: (row as { id: string }).id, token, seconds: 60 * TELEPHONE.minutes }
      })
    },

    /** What has come for the desk that asked. */
    come: async (account: string, shot: string, id: string): Promise<FromTelephone> =>
      sent(await ofDesk(account, shot, id)),

    /** A photograph for the desk, which has it then. */
    async fetch(account: string, shot: string, id: string, photo: string): Promise<Buffer> {
      const row = await ofDesk(account, shot, id)
      const [rows]: [{ bytes: Buffer }[], number] = await source.query(
        'UPDATE telephone_photos SET taken = true WHERE telephone_id = $1 AND id = $2 RETURNING bytes',
        [row.id, photo],
      )
      if (!rows[0]) throw new Problem('not-found', 'There is no such photograph.')
      return rows[0].bytes
    },

    /** No more is to come; what has come is let go. */
    close: async (account: string, shot: string, id: string): Promise<void> =>
      void (await source.query('DELETE FROM telephones WHERE id = $1 AND shot_id = $2 AND account_id = $3', [
        id,
        shot,
        account,
      ])),

    /** What a telephone is told: where it sends to, for how long, and what of it has arrived. */
    async at(token: string): Promise<AtTelephone> {
      const { row, shot, film } = await holder(token)
      return { shot: shot.name, film: film.name, ...(await sent(row)) }
    },

    /** Takes a photograph from a telephone; `body` is read only when there is room for it. Sent again under its id it is known. */
    async take(token: string, photo: string, body: () => Promise<Buffer>): Promise<void> {
      const { row } = await holder(token)
      const bytes = await body()
      if (!PHOTOGRAPHS.has(incomingKind(bytes.subarray(0, HEAD_BYTES)))) {
        throw new Problem('bad-request', 'What was sent is no photograph.')
      }
      await source.transaction(async tx => {
        // Two at once are counted one after the other.
        const [there]: unknown[] = await tx.query('SELECT 1 FROM telephones WHERE id = $1 FOR UPDATE', [row.id])
        if (!there) throw gone()
        const [{ count }]: [{ count: number }] = await tx.query(
          'SELECT count(*)::int AS count FROM telephone_photos WHERE telephone_id = $1 AND id <> $2',
          [row.id, photo],
        )
        if (count >= TELEPHONE.photos) {
          throw new Problem(
            'too-large',
            `One code takes ${TELEPHONE.photos} photographs. Ask for a new one at the desk.`,
          )
        }
        await tx.query(
          'INSERT INTO telephone_photos (telephone_id, id, place, bytes) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING',
          [row.id, photo, count, bytes],
        )
      })
    },

    /** Lets go of telephones whose time is over, with what they sent. How many went. */
    async sweep(): Promise<number> {
      const [, went]: [unknown, number] = await source.query('DELETE FROM telephones WHERE until < now()')
      return went
    },
  }
}

export type TelephoneService = ReturnType<typeof telephoneService>
