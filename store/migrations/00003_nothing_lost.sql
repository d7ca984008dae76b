-- +goose Up
-- What belongs to the whole folder: its identity, made once, and what it has
-- to tell.
CREATE TABLE folder (
  key TEXT PRIMARY KEY,
  value TEXT NOT NULL
);
-- Shapes that were drawn up live, by their problem and solver.
CREATE TABLE shapes (
  key TEXT PRIMARY KEY,
  made_at DATETIME NOT NULL,
  content BLOB NOT NULL
);
-- A piece is known by its uid in every folder that it is carried to.
ALTER TABLE pieces ADD COLUMN uid TEXT NOT NULL DEFAULT '';
UPDATE pieces SET uid = lower(hex(randomblob(16)));
CREATE UNIQUE INDEX pieces_uid ON pieces(uid);
-- A revision with a name is kept for ever; one set aside stands beside the
-- history and redo never leads to it. Its summary is what the rack shows.
ALTER TABLE revisions ADD COLUMN name TEXT NOT NULL DEFAULT '';
ALTER TABLE revisions ADD COLUMN aside INTEGER NOT NULL DEFAULT 0;
ALTER TABLE revisions ADD COLUMN summary TEXT NOT NULL DEFAULT '';
ALTER TABLE revisions ADD COLUMN summed_by TEXT NOT NULL DEFAULT '';
-- The place at the vise counts in the actions of one revision.
ALTER TABLE places ADD COLUMN revision_id INTEGER NOT NULL DEFAULT 0;
ALTER TABLE places ADD COLUMN device TEXT NOT NULL DEFAULT '';
UPDATE places SET revision_id = (SELECT current_id FROM pieces WHERE pieces.id = places.piece_id);
-- What was not measured is unknown and not zero.
CREATE TABLE logs_now (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  piece_id INTEGER NOT NULL REFERENCES pieces(id) ON DELETE CASCADE,
  revision_id INTEGER NOT NULL REFERENCES revisions(id) ON DELETE CASCADE,
  created_at DATETIME NOT NULL,
  minutes REAL,
  length_mm REAL,
  note TEXT NOT NULL,
  cords TEXT NOT NULL
);
INSERT INTO logs_now SELECT id, piece_id, revision_id, created_at, nullif(minutes, 0), nullif(length_mm, 0), note, cords FROM logs;
DROP TABLE logs;
ALTER TABLE logs_now RENAME TO logs;
CREATE INDEX logs_piece ON logs(piece_id);
CREATE INDEX logs_revision ON logs(revision_id);

-- +goose Down
CREATE TABLE logs_before (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  piece_id INTEGER NOT NULL REFERENCES pieces(id) ON DELETE CASCADE,
  revision_id INTEGER NOT NULL REFERENCES revisions(id) ON DELETE CASCADE,
  created_at DATETIME NOT NULL,
  minutes REAL NOT NULL,
  length_mm REAL NOT NULL,
  note TEXT NOT NULL,
  cords TEXT NOT NULL
);
INSERT INTO logs_before SELECT id, piece_id, revision_id, created_at, ifnull(minutes, 0), ifnull(length_mm, 0), note, cords FROM logs;
DROP TABLE logs;
ALTER TABLE logs_before RENAME TO logs;
CREATE INDEX logs_piece ON logs(piece_id);
ALTER TABLE places DROP COLUMN device;
ALTER TABLE places DROP COLUMN revision_id;
ALTER TABLE revisions DROP COLUMN summed_by;
ALTER TABLE revisions DROP COLUMN summary;
ALTER TABLE revisions DROP COLUMN aside;
ALTER TABLE revisions DROP COLUMN name;
DROP INDEX pieces_uid;
ALTER TABLE pieces DROP COLUMN uid;
DROP TABLE shapes;
DROP TABLE folder;
