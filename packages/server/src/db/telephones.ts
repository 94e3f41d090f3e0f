import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Telephones that may send photographs into a shot for some minutes, and what they have sent. */
export class Telephones1765200000000 implements MigrationInterface {
  name = 'Telephones1765200000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE telephones (
         id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
         token_hash text NOT NULL UNIQUE,
         shot_id uuid NOT NULL REFERENCES shots (id) ON DELETE CASCADE,
         account_id uuid NOT NULL REFERENCES accounts (id) ON DELETE CASCADE,
         until timestamptz NOT NULL)`,
    )
    await runner.query('CREATE INDEX telephones_until ON telephones (until)')
    await runner.query(
      `CREATE TABLE telephone_photos (
         telephone_id uuid NOT NULL REFERENCES telephones (id) ON DELETE CASCADE,
         id text NOT NULL,
         place integer NOT NULL,
         bytes bytea NOT NULL,
         taken boolean NOT NULL DEFAULT false,
         PRIMARY KEY (telephone_id, id))`,
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE telephone_photos')
    await runner.query('DROP TABLE telephones')
  }
}
