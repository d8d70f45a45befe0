package store

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"

	"github.com/google/uuid"
)

var (
	// ErrKeyReused is returned where an idempotency key comes again with another
	// request.
	ErrKeyReused = errors.New("idempotency key reused")
	// ErrAnsweredBefore is returned where the key's answer was not stored, because
	// it dates from a version that didn't store answers.
	ErrAnsweredBefore = errors.New("answered before answers were kept")
)

// AnswerRetention is how long a retry finds its answer.
const AnswerRetention = 30 * 24 * time.Hour

// An Answer is the stored answer to a request with a key.
type Answer struct {
	Status  int
	Headers map[string]string
	Body    []byte
}

// Done reports whether the answer is a success.
func (a Answer) Done() bool { return a.Status/100 == 2 }

// Once runs a request at most once. The first time it calls act, and commits act's
// changes together with the answer; if act fails or refuses, nothing is stored and
// the key stays free. Later calls return the stored answer, whatever has changed
// since. request is a digest of the request: with another digest the error is
// ErrKeyReused.
func (s *Store) Once(ctx context.Context, shop uuid.UUID, key string, request []byte, act func(*Store) (Answer, error)) (Answer, error) {
	var out Answer
	refused := errors.New("refused") // rolls back what a refusal left half done
	err := s.Atomically(ctx, func(tx *Store) error {
		// Serialises retries of one key, so that two at once cannot both act.
		if _, err := tx.db.ExecContext(ctx, `SELECT pg_advisory_xact_lock(hashtextextended($1, 0))`, shop.String()+key); err != nil {
			return err
		}
		var seen struct {
			Request []byte          `db:"request"`
			Status  *int            `db:"status"`
			Headers json.RawMessage `db:"headers"`
			Body    []byte          `db:"body"`
		}
		err := tx.db.GetContext(ctx, &seen, `SELECT request, status, headers, body FROM idempotency WHERE shop_id = $1 AND key = $2`, shop, key)
		switch {
		case err == nil && seen.Status == nil:
			return ErrAnsweredBefore
		case err == nil && !bytes.Equal(seen.Request, request):
			return ErrKeyReused
		case err == nil:
			out.Status, out.Body = *seen.Status, seen.Body
			return json.Unmarshal(seen.Headers, &out.Headers)
		case !errors.Is(err, sql.ErrNoRows):
			return err
		}
		if out, err = act(tx); err != nil {
			return err
		}
		if !out.Done() {
			return refused
		}
		headers, err := json.Marshal(out.Headers)
		if err != nil {
			return err
		}
		_, err = tx.db.ExecContext(ctx, `INSERT INTO idempotency (shop_id, key, request, status, headers, body) VALUES ($1, $2, $3, $4, $5, $6)`,
			shop, key, request, out.Status, headers, out.Body)
		return err
	})
	if errors.Is(err, refused) {
		err = nil
	}
	return out, err
}

// SweepAnswers deletes the answers from before a time.
func (s *Store) SweepAnswers(ctx context.Context, before time.Time) error {
	_, err := s.db.ExecContext(ctx, `DELETE FROM idempotency WHERE created_at < $1`, before)
	return err
}
