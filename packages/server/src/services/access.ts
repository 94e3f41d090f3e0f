import type { MemberRole } from '@unhurried/contract'
import type { DataSource, EntityManager } from 'typeorm'
import { FilmRow, MemberRow, ShotRow } from '../db/entities.ts'
import { Problem } from '../http/problem.ts'

/** What an account wants to do with a film. A reviewer may look, an animator draws, the owner also removes the film. */
export type Wish = 'look' | 'draw' | 'own'

const MAY: Record<MemberRole, readonly Wish[]> = {
  owner: ['look', 'draw', 'own'],
  animator: ['look', 'draw'],
  reviewer: ['look'],
}

export interface FilmAccess {
  film: FilmRow
  role: MemberRole
}

export interface ShotAccess extends FilmAccess {
  shot: ShotRow
}

/** Whether an account may do something. To those who are not members a film does not exist. */
export function accessService(source: DataSource) {
  async function toFilm(account: string, filmId: string, wish: Wish, manager?: EntityManager): Promise<FilmAccess> {
    const tx = manager ?? source.manager
    const member = await tx.findOneBy(MemberRow, { filmId, accountId: account })
    const film = member && (await tx.findOneBy(FilmRow, { id: filmId }))
    if (!film) throw new Problem('not-found', 'There is no such film.')
    if (!MAY[member.role].includes(wish)) {
      throw new Problem('not-allowed', `As ${member.role} of this film you may not do that.`)
    }
    return { film, role: member.role }
  }

  return {
    toFilm,
    async toShot(account: string, shotId: string, wish: Wish): Promise<ShotAccess> {
      const shot = await source.manager.findOneBy(ShotRow, { id: shotId })
      if (!shot) throw new Problem('not-found', 'There is no such shot.')
      try {
        return { ...(await toFilm(account, shot.filmId, wish)), shot }
      } catch (error) {
        if (error instanceof Problem && error.code === 'not-found') {
          throw new Problem('not-found', 'There is no such shot.')
        }
        throw error
      }
    },
  }
}

export type AccessService = ReturnType<typeof accessService>
