-- A copy of a shop is brought in by the role that serves it, with the ids that
-- its rows had; the counters are put past them.

-- +goose Up
GRANT USAGE, SELECT, UPDATE ON SEQUENCE log_id_seq, job_ticks_id_seq TO corte_serves;

-- +goose Down
REVOKE ALL ON SEQUENCE log_id_seq, job_ticks_id_seq FROM corte_serves;
