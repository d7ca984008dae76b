-- +goose Up
-- Cores lie in the drawer beside the cords.
ALTER TABLE drawer ADD COLUMN shelf TEXT NOT NULL DEFAULT 'cord';

-- +goose Down
DELETE FROM drawer WHERE shelf <> 'cord';
ALTER TABLE drawer DROP COLUMN shelf;
