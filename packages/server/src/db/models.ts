import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Model sheets of films: what their figures look like from all sides. And films that are a study of somebody else's work. */
export class Models1765100000000 implements MigrationInterface {
  name = 'Models1765100000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE models (
         film_id uuid NOT NULL REFERENCES films (id) ON DELETE CASCADE,
         id text NOT NULL,
         turn integer NOT NULL DEFAULT 1,
         model jsonb NOT NULL,
         created_at timestamptz NOT NULL DEFAULT now(),
         PRIMARY KEY (film_id, id))`,
    )
    await runner.query(`ALTER TABLE films ADD COLUMN study text NOT NULL DEFAULT ''`)
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE films DROP COLUMN study')
    await runner.query('DROP TABLE models')
  }
}
