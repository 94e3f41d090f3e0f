import type { MigrationInterface, QueryRunner } from 'typeorm'

const UP = [
  'SET LOCAL statement_timeout = 0',
  // One row: which life of the database this is.
  `CREATE TABLE house (
     is_one boolean PRIMARY KEY DEFAULT true CHECK (is_one),
     epoch text NOT NULL DEFAULT gen_random_uuid()::text)`,
  'INSERT INTO house DEFAULT VALUES',
  'ALTER TABLE snapshots ADD COLUMN hash text',
  // What a shot amounts to in bytes: its document, its strokes, its journal.
  `ALTER TABLE shots
     ADD COLUMN document_bytes integer NOT NULL DEFAULT 0,
     ADD COLUMN stroke_bytes bigint NOT NULL DEFAULT 0,
     ADD COLUMN journal_bytes bigint NOT NULL DEFAULT 0`,
  `UPDATE shots SET
     document_bytes = coalesce((SELECT octet_length(document::text) FROM snapshots
       WHERE shot_id = shots.id ORDER BY seq DESC LIMIT 1), 0),
     stroke_bytes = coalesce((SELECT sum(octet_length(bytes)) FROM stroke_samples WHERE shot_id = shots.id), 0),
     journal_bytes = coalesce((SELECT sum(octet_length(ops::text)) FROM journal WHERE shot_id = shots.id), 0)`,
  // Whoever takes access away, and by whatever process, is heard by those who hold streams open.
  `CREATE FUNCTION tell_access() RETURNS trigger LANGUAGE plpgsql AS $$
   BEGIN
     IF TG_TABLE_NAME = 'sessions' THEN
       PERFORM pg_notify('access_changed', 'session ' || OLD.token_hash);
     ELSIF TG_TABLE_NAME = 'members' THEN
       PERFORM pg_notify('access_changed', 'member ' || OLD.film_id || ' ' || OLD.account_id);
     ELSIF NEW.removed_at IS NOT NULL AND OLD.removed_at IS NULL THEN
       PERFORM pg_notify('access_changed', rtrim(TG_TABLE_NAME, 's') || ' ' || OLD.id);
     END IF;
     RETURN NULL;
   END $$`,
  'CREATE TRIGGER session_ended AFTER DELETE ON sessions FOR EACH ROW EXECUTE FUNCTION tell_access()',
  'CREATE TRIGGER member_taken_off AFTER DELETE ON members FOR EACH ROW EXECUTE FUNCTION tell_access()',
  'CREATE TRIGGER film_removed AFTER UPDATE OF removed_at ON films FOR EACH ROW EXECUTE FUNCTION tell_access()',
  'CREATE TRIGGER shot_removed AFTER UPDATE OF removed_at ON shots FOR EACH ROW EXECUTE FUNCTION tell_access()',
]

const DOWN = [
  'DROP TRIGGER shot_removed ON shots',
  'DROP TRIGGER film_removed ON films',
  'DROP TRIGGER member_taken_off ON members',
  'DROP TRIGGER session_ended ON sessions',
  'DROP FUNCTION tell_access',
  'ALTER TABLE shots DROP COLUMN journal_bytes, DROP COLUMN stroke_bytes, DROP COLUMN document_bytes',
  'ALTER TABLE snapshots DROP COLUMN hash',
  'DROP TABLE house',
]

/** Which life of the database this is, hashes of snapshots, what shots amount to, and word of access taken away. */
export class Keeping1764200000000 implements MigrationInterface {
  name = 'Keeping1764200000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of UP) await runner.query(statement)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const statement of DOWN) await runner.query(statement)
  }
}
