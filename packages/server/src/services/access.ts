import type { MemberRole } from '@unhurried/contract'
import type { DataSource } from 'typeorm'
import { Problem } from '../problems/problem.ts'

/** What an account wants to do with a film. A reviewer may look and remark, an animator draws, the owner also removes the film. */
export type Wish = 'look' | 'remark' | 'draw' | 'own'

const MAY: Record<MemberRole, readonly Wish[]> = {
  owner: ['look', 'remark', 'draw', 'own'],
  animator: ['look', 'remark', 'draw'],
  reviewer: ['look', 'remark'],
}

export interface FilmAccess {
  readonly film: { readonly id: string; readonly name: string; readonly study: string }
  readonly role: MemberRole
}

/** What a shot amounts to, in bytes. */
export interface ShotBytes {
  readonly document: number
  readonly strokes: number
  readonly journal: number
}

export interface ShotAccess extends FilmAccess {
  readonly shot: {
    readonly id: string
    readonly filmId: string
    readonly name: string
    readonly headSeq: number
    readonly removedAt: Date | null
    /** what reading it costs */
    readonly bytes: ShotBytes
  }
}

interface Row {
  film: string
  film_name: string
  film_study: string
  film_removed: boolean
  role: MemberRole
  shot: string
  name: string
  head_seq: number
  removed_at: Date | null
  document_bytes: number
  stroke_bytes: string
  journal_bytes: string
}

/** Whether what lies in the bin is meant. Only putting something back reaches in there. */
export type Where = 'shelf' | 'bin'

/**
 * Whether an account may do something. To those who are not members a film does not exist; what lies in the bin can be put
 * back and nothing else.
 */
export function accessService(source: DataSource) {
  function allow(role: MemberRole, wish: Wish): void {
    if (!MAY[role].includes(wish)) throw new Problem('not-allowed', `As ${role} of this film you may not do that.`)
  }

  return {
    async toFilm(account: string, filmId: string, wish: Wish, where: Where = 'shelf'): Promise<FilmAccess> {
      const [row]: Row[] = await source.query(
        `SELECT f.id AS film, f.name AS film_name, f.study AS film_study, f.removed_at IS NOT NULL AS film_removed, m.role
         FROM members m JOIN films f ON f.id = m.film_id WHERE m.account_id = $1 AND f.id = $2`,
        [account, filmId],
      )
      if (!row) throw new Problem('not-found', 'There is no such film.')
      allow(row.role, wish)
      if (row.film_removed && where === 'shelf') throw new Problem('removed', 'This film lies in the bin.')
      return { film: { id: row.film, name: row.film_name, study: row.film_study }, role: row.role }
    },

    async toShot(account: string, shotId: string, wish: Wish, where: Where = 'shelf'): Promise<ShotAccess> {
      const [row]: Row[] = await source.query(
        `SELECT f.id AS film, f.name AS film_name, f.study AS film_study, f.removed_at IS NOT NULL AS film_removed, m.role,
           s.id AS shot, s.name, s.head_seq, s.removed_at, s.document_bytes, s.stroke_bytes, s.journal_bytes
         FROM shots s JOIN films f ON f.id = s.film_id JOIN members m ON m.film_id = f.id
         WHERE m.account_id = $1 AND s.id = $2`,
        [account, shotId],
      )
      if (!row) throw new Problem('not-found', 'There is no such shot.')
      allow(row.role, wish)
      if (row.film_removed) throw new Problem('removed', 'The film of this shot lies in the bin.')
      if (row.removed_at !== null && where === 'shelf') {
        throw new Problem('removed', 'This shot lies in the bin. Put it back to go on with it.')
      }
      return {
        film: { id: row.film, name: row.film_name, study: row.film_study },
        role: row.role,
        shot: {
          id: row.shot,
          filmId: row.film,
          name: row.name,
          headSeq: row.head_seq,
          removedAt: row.removed_at,
          bytes: {
            document: row.document_bytes,
            strokes: Number(row.stroke_bytes),
            journal: Number(row.journal_bytes),
          },
        },
      }
    },
  }
}

export type AccessService = ReturnType<typeof accessService>
