import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Journal entries say for which document schema they were written; those from before it was kept are of the first. */
export class JournalSchema1764050000000 implements MigrationInterface {
  name = 'JournalSchema1764050000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE journal ADD COLUMN schema smallint NOT NULL DEFAULT 1')
    await runner.query('ALTER TABLE journal ALTER COLUMN schema DROP DEFAULT')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE journal DROP COLUMN schema')
  }
}
