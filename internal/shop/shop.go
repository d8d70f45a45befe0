// Package shop has a service for every station. A service loads what the shop
// has stored, calls the core, and saves the result. Only these packages use both
// core and store.
package shop

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"

	"corte/core/say"
	"corte/internal/account"
	"corte/internal/refusal"
	"corte/internal/shop/bench"
	"corte/internal/shop/care"
	"corte/internal/shop/choose"
	"corte/internal/shop/env"
	"corte/internal/shop/groove"
	"corte/internal/shop/job"
	"corte/internal/shop/joint"
	"corte/internal/shop/log"
	"corte/internal/shop/mount"
	"corte/internal/shop/own"
	"corte/internal/shop/people"
	"corte/internal/shop/practice"
	"corte/internal/shop/rack"
	"corte/internal/shop/repair"
	"corte/internal/shop/run"
	"corte/internal/shop/special"
	"corte/internal/shop/trace"
	"corte/internal/shop/truing"
	"corte/internal/store"
)

// A Service answers for every shop on one database. It holds no state.
type Service struct {
	*env.Env
	Bench    bench.Station
	Care     care.Station
	Choose   choose.Station
	Groove   groove.Station
	Job      job.Station
	Joint    joint.Station
	Special  special.Station
	Log      log.Station
	Mount    mount.Station
	Own      own.Station
	People   people.Station
	Practice practice.Station
	Rack     rack.Station
	Repair   repair.Station
	Run      run.Station
	Trace    trace.Station
	Truing   truing.Station
}

// New makes a service that reads the time from now.
func New(st *store.Store, now func() time.Time) *Service {
	return over(&env.Env{Store: st, Now: now, Background: env.NewBackground()})
}

// Stop ends what goes on in the background, such as an import, and waits for it.
func (s *Service) Stop() { s.Background.Stop() }

func over(k *env.Env) *Service {
	return &Service{
		Env: k, Bench: bench.At(k), Care: care.At(k), Choose: choose.At(k.Store), Groove: groove.At(k), Job: job.At(k), Joint: joint.At(k), Special: special.At(k), Log: log.At(k),
		Mount: mount.At(k), Own: own.At(k), People: people.At(k), Practice: practice.At(k), Rack: rack.At(k), Repair: repair.At(k), Run: run.At(k), Trace: trace.At(k), Truing: truing.At(k),
	}
}

// Once answers a request under a key: the first time by act, whose every change
// is kept together with the answer, and after that as it was answered then.
func (s *Service) Once(ctx context.Context, shop uuid.UUID, key string, request []byte, act func(*Service) (store.Answer, error)) (store.Answer, error) {
	out, err := s.Store.Once(ctx, shop, key, request, func(tx *store.Store) (store.Answer, error) { return act(over(s.In(tx))) })
	switch {
	case errors.Is(err, store.ErrKeyReused):
		return out, refusal.Of("Idempotency-Key", "this idempotency key was used for another request. Use a new key")
	case errors.Is(err, store.ErrAnsweredBefore):
		return out, &refusal.Error{Reason: refusal.Conflict, Field: "Idempotency-Key", What: say.Of("this was already saved. Nothing was done twice")}
	}
	return out, err
}

// Together runs act in one transaction: what it reads is what it changes, and
// its every change is kept, or none.
func (s *Service) Together(ctx context.Context, act func(*Service) error) error {
	return s.Store.Atomically(ctx, func(tx *store.Store) error { return act(over(s.In(tx))) })
}

// Sweep forgets answers that are too old for anybody to ask again, and ways in
// that are over.
func (s *Service) Sweep(ctx context.Context) error {
	if err := s.Store.SweepAnswers(ctx, s.Now().Add(-store.AnswerRetention)); err != nil {
		return err
	}
	if err := s.Store.SweepImports(ctx, s.Now().Add(-store.AnswerRetention)); err != nil {
		return err
	}
	if err := s.Store.SweepAudit(ctx, s.Now().Add(-store.AuditRetention)); err != nil {
		return err
	}
	return s.Store.SweepAccounts(ctx, s.Now(), account.Forget)
}

// Alive reports whether the database answers.
func (s *Service) Alive(ctx context.Context) error { return s.Store.Ping(ctx) }
