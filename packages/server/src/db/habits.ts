import type { MigrationInterface, QueryRunner } from 'typeorm'

/** How an account likes to sit at the desk; empty until something is changed. */
export class Habits1764100000000 implements MigrationInterface {
  name = 'Habits1764100000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE accounts ADD COLUMN habits jsonb NOT NULL DEFAULT '{}'`)
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE accounts DROP COLUMN habits')
  }
}
