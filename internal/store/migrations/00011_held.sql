-- What a dado set's log adds up to is kept beside it, as a blade's condition is.

-- +goose Up
ALTER TABLE dado_sets
    ADD COLUMN held jsonb,
    ADD COLUMN held_fold integer NOT NULL DEFAULT 0; -- of what is not folded yet

-- +goose Down
ALTER TABLE dado_sets DROP COLUMN held, DROP COLUMN held_fold;
