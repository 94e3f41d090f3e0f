import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Stored things that were sent ahead of the batch that uses them, since together they are more than a request may hold. */
export class Ahead1764900000000 implements MigrationInterface {
  name = 'Ahead1764900000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE assets_ahead (
         shot_id uuid NOT NULL REFERENCES shots (id) ON DELETE CASCADE,
         id text NOT NULL,
         kind text NOT NULL,
         bytes bytea NOT NULL,
         created_at timestamptz NOT NULL DEFAULT now(),
         PRIMARY KEY (shot_id, id))`,
    )
    await runner.query('CREATE INDEX assets_ahead_created ON assets_ahead (created_at)')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE assets_ahead')
  }
}
