import type { ShotDocument } from '@unhurried/core/document'
import type { MemberRole } from '@unhurried/contract'
import { Column, CreateDateColumn, Entity, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm'

@Entity('accounts')
export class AccountRow {
  @PrimaryGeneratedColumn('uuid') id!: string
  /** lower case; unique in the database */
  @Column({ type: 'text' }) email!: string
  @Column({ type: 'text' }) name!: string
  @Column({ type: 'text', name: 'password_hash' }) passwordHash!: string
  @Column({ type: 'jsonb', default: {} }) habits!: object
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt!: Date
}

@Entity('sessions')
export class SessionRow {
  /** SHA-256 of the cookie: the table alone lets nobody in */
  @PrimaryColumn({ type: 'text', name: 'token_hash' }) tokenHash!: string
  @Column({ type: 'uuid', name: 'account_id' }) accountId!: string
  @Column({ type: 'timestamptz', name: 'expires_at' }) expiresAt!: Date
}

@Entity('films')
export class FilmRow {
  @PrimaryGeneratedColumn('uuid') id!: string
  @Column({ type: 'text' }) name!: string
  /** whose work it is a study of; empty where it is one's own */
  @Column({ type: 'text', default: '' }) study!: string
  @Column({ type: 'timestamptz', name: 'removed_at', nullable: true }) removedAt!: Date | null
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt!: Date
}

@Entity('members')
export class MemberRow {
  @PrimaryColumn({ type: 'uuid', name: 'film_id' }) filmId!: string
  @PrimaryColumn({ type: 'uuid', name: 'account_id' }) accountId!: string
  @Column({ type: 'text' }) role!: MemberRole
}

@Entity('shots')
export class ShotRow {
  @PrimaryGeneratedColumn('uuid') id!: string
  @Column({ type: 'uuid', name: 'film_id' }) filmId!: string
  @Column({ type: 'text' }) name!: string
  @Column({ type: 'integer' }) place!: number
  /** number of the newest journal entry */
  @Column({ type: 'integer', name: 'head_seq' }) headSeq!: number
  /** about how many bytes the document is when it is written down */
  @Column({ type: 'integer', name: 'document_bytes', default: 0 }) documentBytes!: number
  @Column({ type: 'bigint', name: 'stroke_bytes', default: 0 }) strokeBytes!: string
  @Column({ type: 'bigint', name: 'journal_bytes', default: 0 }) journalBytes!: string
  @Column({ type: 'timestamptz', name: 'removed_at', nullable: true }) removedAt!: Date | null
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt!: Date
}

@Entity('journal')
export class JournalRow {
  @PrimaryColumn({ type: 'uuid', name: 'shot_id' }) shotId!: string
  @PrimaryColumn({ type: 'integer' }) seq!: number
  /** unique within the shot, so that a batch sent twice is stored once */
  @Column({ type: 'text', name: 'batch_id' }) batchId!: string
  @Column({ type: 'uuid', name: 'account_id', nullable: true }) accountId!: string | null
  @Column({ type: 'text' }) label!: string
  /** the document schema that the operations were written for */
  @Column({ type: 'smallint' }) schema!: number
  @Column({ type: 'json' }) ops!: readonly object[]
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt!: Date
}

@Entity('snapshots')
export class SnapshotRow {
  @PrimaryColumn({ type: 'uuid', name: 'shot_id' }) shotId!: string
  @PrimaryColumn({ type: 'integer' }) seq!: number
  @Column({ type: 'json' }) document!: ShotDocument
  /** SHA-256 of the document's text; those written before it was kept have none */
  @Column({ type: 'text', nullable: true }) hash!: string | null
}

@Entity('assets')
export class AssetRow {
  @PrimaryColumn({ type: 'uuid', name: 'shot_id' }) shotId!: string
  @PrimaryColumn({ type: 'text' }) id!: string
  /** samples of strokes, or a picture */
  @Column({ type: 'text' }) kind!: string
  /** its bytes; of a picture they lie with the media of the film */
  @Column({ type: 'bytea', nullable: true }) bytes!: Buffer | null
  /** of a picture, the SHA-256 that it is kept under there */
  @Column({ type: 'text', nullable: true }) media!: string | null
}

export const ENTITIES = [AccountRow, SessionRow, FilmRow, MemberRow, ShotRow, JournalRow, SnapshotRow, AssetRow]
