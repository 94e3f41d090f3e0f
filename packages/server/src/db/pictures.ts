import type { MigrationInterface, QueryRunner } from 'typeorm'

/**
 * Puts the bytes of a picture where its film keeps media, and leaves their SHA-256 behind. What somebody began to send under that name and
 * has not been looked at yet is replaced: it may be anything.
 */
const KEEP_PICTURE = `
  CREATE FUNCTION keep_picture() RETURNS trigger LANGUAGE plpgsql AS $$
  DECLARE
    film uuid := (SELECT film_id FROM shots WHERE id = NEW.shot_id);
  BEGIN
    NEW.media := encode(sha256(NEW.bytes), 'hex');
    DELETE FROM media WHERE film_id = film AND id = NEW.media AND NOT whole;
    INSERT INTO media (film_id, id, bytes, form, whole) VALUES (film, NEW.media, octet_length(NEW.bytes), 'png', true)
      ON CONFLICT (film_id, id) DO UPDATE SET touched_at = now();
    INSERT INTO media_chunks (film_id, id, place, bytes)
      SELECT film, NEW.media, place, substring(NEW.bytes FROM place * 1048576 + 1 FOR 1048576)
      FROM generate_series(0, (octet_length(NEW.bytes) - 1) / 1048576) AS place ON CONFLICT DO NOTHING;
    INSERT INTO media_uses (shot_id, id) VALUES (NEW.shot_id, NEW.media) ON CONFLICT DO NOTHING;
    NEW.bytes := NULL;
    RETURN NEW;
  END $$`

/** Stored things as they were sent, wherever their bytes lie; their length and SHA-256 without reading them where that is known. */
const WHOLE = `
  CREATE VIEW assets_whole AS SELECT a.shot_id, a.id, a.kind,
    COALESCE(a.bytes, (SELECT string_agg(c.bytes, ''::bytea ORDER BY c.place) FROM media_chunks c
      WHERE c.film_id = s.film_id AND c.id = a.media)) AS bytes,
    COALESCE(octet_length(a.bytes), (SELECT m.bytes FROM media m WHERE m.film_id = s.film_id AND m.id = a.media))::int AS length,
    COALESCE(a.media, encode(sha256(a.bytes), 'hex')) AS hash
  FROM assets a JOIN shots s ON s.id = a.shot_id`

const UP = [
  'ALTER TABLE assets ADD COLUMN media text',
  'ALTER TABLE assets ALTER COLUMN bytes DROP NOT NULL',
  KEEP_PICTURE,
  `CREATE TRIGGER keep_picture BEFORE INSERT OR UPDATE ON assets
     FOR EACH ROW WHEN (NEW.kind = 'picture' AND NEW.bytes IS NOT NULL) EXECUTE FUNCTION keep_picture()`,
  // Those that are there already go the same way.
  "UPDATE assets SET bytes = bytes WHERE kind = 'picture'",
  'ALTER TABLE assets ADD CONSTRAINT assets_lie_somewhere CHECK ((bytes IS NULL) <> (media IS NULL))',
  WHOLE,
]
const DOWN = [
  'DROP TRIGGER keep_picture ON assets',
  'DROP FUNCTION keep_picture()',
  'ALTER TABLE assets DROP CONSTRAINT assets_lie_somewhere',
  `UPDATE assets a SET bytes = w.bytes FROM assets_whole w
     WHERE a.media IS NOT NULL AND w.shot_id = a.shot_id AND w.id = a.id`,
  'DROP VIEW assets_whole',
  'ALTER TABLE assets ALTER COLUMN bytes SET NOT NULL',
  'ALTER TABLE assets DROP COLUMN media',
]

/** Pictures of drawings lie with the media of their film, by their contents: what several drawings or shots show is kept once. */
export class Pictures1765300000000 implements MigrationInterface {
  name = 'Pictures1765300000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of UP) await runner.query(statement)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const statement of DOWN) await runner.query(statement)
  }
}
