-- +goose Up
-- A place below 0 is so many moves on the table before the first one that ties.
CREATE TABLE places_new (
  piece_id INTEGER PRIMARY KEY REFERENCES pieces(id) ON DELETE CASCADE,
  action INTEGER NOT NULL CHECK (action >= -1000),
  updated_at DATETIME NOT NULL,
  revision_id INTEGER NOT NULL DEFAULT 0,
  device TEXT NOT NULL DEFAULT '',
  worked_s REAL NOT NULL DEFAULT 0
);
INSERT INTO places_new SELECT piece_id, action, updated_at, revision_id, device, worked_s FROM places;
DROP TABLE places;
ALTER TABLE places_new RENAME TO places;

-- +goose Down
CREATE TABLE places_old (
  piece_id INTEGER PRIMARY KEY REFERENCES pieces(id) ON DELETE CASCADE,
  action INTEGER NOT NULL CHECK (action >= 0),
  updated_at DATETIME NOT NULL,
  revision_id INTEGER NOT NULL DEFAULT 0,
  device TEXT NOT NULL DEFAULT '',
  worked_s REAL NOT NULL DEFAULT 0
);
INSERT INTO places_old SELECT piece_id, max(action, 0), updated_at, revision_id, device, worked_s FROM places;
DROP TABLE places;
ALTER TABLE places_old RENAME TO places;
