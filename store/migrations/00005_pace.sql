-- +goose Up
-- How long was worked at the vise since the last pause, s.
ALTER TABLE places ADD COLUMN worked_s REAL NOT NULL DEFAULT 0;
-- The time that went into each section of a piece, by device. A piece that is gone for
-- ever leaves its times, for they tell how fast its knots were tied.
CREATE TABLE spells (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  piece_uid TEXT NOT NULL,
  section INTEGER NOT NULL,
  knot TEXT NOT NULL,
  device TEXT NOT NULL,
  moves INTEGER NOT NULL,
  knots REAL NOT NULL,
  worked_s REAL NOT NULL,
  pauses INTEGER NOT NULL,
  paused_s REAL NOT NULL,
  -- The number of the device's last step that is counted, so that none is twice.
  last_step INTEGER NOT NULL,
  UNIQUE (piece_uid, section, knot, device)
);

-- +goose Down
DROP TABLE spells;
ALTER TABLE places DROP COLUMN worked_s;
