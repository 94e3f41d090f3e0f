import type { MigrationInterface, QueryRunner } from 'typeorm'

const UP = [
  `CREATE TABLE media (
     film_id uuid NOT NULL REFERENCES films (id) ON DELETE CASCADE,
     id text NOT NULL CHECK (id ~ '^[0-9a-f]{64}$'),
     bytes bigint NOT NULL CHECK (bytes > 0),
     form text,
     whole boolean NOT NULL DEFAULT false,
     touched_at timestamptz NOT NULL DEFAULT now(),
     PRIMARY KEY (film_id, id))`,
  `CREATE TABLE media_chunks (
     film_id uuid NOT NULL,
     id text NOT NULL,
     place integer NOT NULL,
     bytes bytea NOT NULL,
     PRIMARY KEY (film_id, id, place),
     FOREIGN KEY (film_id, id) REFERENCES media (film_id, id) ON DELETE CASCADE)`,
  // Sound and pictures are packed already; unpacked, a part of a piece is read without the rest of it.
  'ALTER TABLE media_chunks ALTER COLUMN bytes SET STORAGE EXTERNAL',
  // What shots refer to, or did: their journals can bring it back.
  `CREATE TABLE media_uses (
     shot_id uuid NOT NULL REFERENCES shots (id) ON DELETE CASCADE,
     id text NOT NULL,
     PRIMARY KEY (shot_id, id))`,
]

/** Recordings and clips of a film, by their contents, in pieces; and which shots refer to them. */
export class Media1765000000000 implements MigrationInterface {
  name = 'Media1765000000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of UP) await runner.query(statement)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['media_uses', 'media_chunks', 'media']) await runner.query(`DROP TABLE ${table}`)
  }
}
