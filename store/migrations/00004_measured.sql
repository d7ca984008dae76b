-- +goose Up
-- A log tells its piece's width and the knots that were tied, and whether it counts:
-- 0 not, 1 unless it surprises, where nobody was asked about it, 2 whatever it says.
ALTER TABLE logs ADD COLUMN width_mm REAL;
ALTER TABLE logs ADD COLUMN tied TEXT NOT NULL DEFAULT '';
ALTER TABLE logs ADD COLUMN counts INTEGER NOT NULL DEFAULT 1;

-- +goose Down
ALTER TABLE logs DROP COLUMN counts;
ALTER TABLE logs DROP COLUMN tied;
ALTER TABLE logs DROP COLUMN width_mm;
