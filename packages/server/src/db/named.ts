import type { MigrationInterface, QueryRunner } from 'typeorm'

const UP = [
  'ALTER TABLE assets_ahead ADD COLUMN media text',
  'ALTER TABLE assets_ahead ALTER COLUMN bytes DROP NOT NULL',
  'ALTER TABLE assets_ahead ADD CONSTRAINT ahead_lies_somewhere CHECK ((bytes IS NULL) <> (media IS NULL))',
  `CREATE FUNCTION use_picture() RETURNS trigger LANGUAGE plpgsql AS $$
   BEGIN
     INSERT INTO media_uses (shot_id, id) VALUES (NEW.shot_id, NEW.media) ON CONFLICT DO NOTHING;
     RETURN NEW;
   END $$`,
  `CREATE TRIGGER use_picture AFTER INSERT ON assets
     FOR EACH ROW WHEN (NEW.media IS NOT NULL) EXECUTE FUNCTION use_picture()`,
]
const DOWN = [
  'DROP TRIGGER use_picture ON assets',
  'DROP FUNCTION use_picture()',
  'DELETE FROM assets_ahead WHERE bytes IS NULL',
  'ALTER TABLE assets_ahead DROP CONSTRAINT ahead_lies_somewhere',
  'ALTER TABLE assets_ahead ALTER COLUMN bytes SET NOT NULL',
  'ALTER TABLE assets_ahead DROP COLUMN media',
]

/** A picture that a batch will use comes in pieces, as all media of a film do; what goes ahead of the batch is then only its name. */
export class Named1765400000000 implements MigrationInterface {
  name = 'Named1765400000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of UP) await runner.query(statement)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const statement of DOWN) await runner.query(statement)
  }
}
