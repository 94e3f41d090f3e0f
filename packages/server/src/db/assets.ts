import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Stored things of several kinds lie where only the samples of strokes lay. */
export class Assets1764600000000 implements MigrationInterface {
  name = 'Assets1764600000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE stroke_samples RENAME TO assets')
    await runner.query("ALTER TABLE assets ADD COLUMN kind text NOT NULL DEFAULT 'samples'")
    await runner.query('ALTER TABLE assets ALTER COLUMN kind DROP DEFAULT')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DELETE FROM assets WHERE kind <> 'samples'")
    await runner.query('ALTER TABLE assets DROP COLUMN kind')
    await runner.query('ALTER TABLE assets RENAME TO stroke_samples')
  }
}
