import type { MigrationInterface, QueryRunner } from 'typeorm'

const UP = [
  `CREATE TABLE accounts (
     id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
     email text NOT NULL UNIQUE,
     name text NOT NULL,
     password_hash text NOT NULL,
     created_at timestamptz NOT NULL DEFAULT now())`,
  `CREATE TABLE sessions (
     token_hash text PRIMARY KEY,
     account_id uuid NOT NULL REFERENCES accounts ON DELETE CASCADE,
     expires_at timestamptz NOT NULL)`,
  `CREATE INDEX sessions_by_expiry ON sessions (expires_at)`,
  `CREATE TABLE films (
     id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
     name text NOT NULL,
     removed_at timestamptz,
     created_at timestamptz NOT NULL DEFAULT now())`,
  `CREATE TABLE members (
     film_id uuid NOT NULL REFERENCES films ON DELETE CASCADE,
     account_id uuid NOT NULL REFERENCES accounts ON DELETE CASCADE,
     role text NOT NULL CHECK (role IN ('owner', 'animator', 'reviewer')),
     PRIMARY KEY (film_id, account_id))`,
  `CREATE INDEX members_by_account ON members (account_id)`,
  `CREATE TABLE shots (
     id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
     film_id uuid NOT NULL REFERENCES films ON DELETE CASCADE,
     name text NOT NULL,
     place integer NOT NULL,
     head_seq integer NOT NULL DEFAULT 0,
     removed_at timestamptz,
     created_at timestamptz NOT NULL DEFAULT now())`,
  `CREATE INDEX shots_by_film ON shots (film_id, place)`,
  `CREATE TABLE journal (
     shot_id uuid NOT NULL REFERENCES shots ON DELETE CASCADE,
     seq integer NOT NULL,
     batch_id text NOT NULL,
     account_id uuid REFERENCES accounts ON DELETE SET NULL,
     label text NOT NULL,
     ops json NOT NULL,
     created_at timestamptz NOT NULL DEFAULT now(),
     PRIMARY KEY (shot_id, seq),
     UNIQUE (shot_id, batch_id))`,
  `CREATE TABLE snapshots (
     shot_id uuid NOT NULL REFERENCES shots ON DELETE CASCADE,
     seq integer NOT NULL,
     document json NOT NULL,
     PRIMARY KEY (shot_id, seq))`,
  `CREATE TABLE stroke_samples (
     shot_id uuid NOT NULL REFERENCES shots ON DELETE CASCADE,
     id text NOT NULL,
     bytes bytea NOT NULL,
     PRIMARY KEY (shot_id, id))`,
]

const TABLES = ['stroke_samples', 'snapshots', 'journal', 'shots', 'members', 'films', 'sessions', 'accounts']

/** Accounts, films and shots; every shot with its journal, snapshots and stroke samples. */
export class First1764000000000 implements MigrationInterface {
  name = 'First1764000000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of UP) await runner.query(statement)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) await runner.query(`DROP TABLE ${table}`)
  }
}
