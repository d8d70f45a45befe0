package env

import (
	"context"
	"sync"
)

// Background is the work that goes on after the request that began it was
// answered. Stop ends it. The zero Background has nothing under way.
type Background struct {
	group sync.WaitGroup
	mu    sync.Mutex
	ended bool
	ends  map[*context.CancelFunc]struct{}
}

// Go runs work with the values of a request's context. The context ends with
// Stop and not with the request. After Stop nothing is begun.
func (b *Background) Go(ctx context.Context, work func(context.Context)) {
	b.mu.Lock()
	defer b.mu.Unlock()
	if b.ended {
		return
	}
	ctx, cancel := context.WithCancel(context.WithoutCancel(ctx))
	if b.ends == nil {
		b.ends = map[*context.CancelFunc]struct{}{}
	}
	b.ends[&cancel] = struct{}{}
	b.group.Go(func() {
		defer func() {
			cancel()
			b.mu.Lock()
			delete(b.ends, &cancel)
			b.mu.Unlock()
		}()
		work(ctx)
	})
}

// Stop ends what is under way and waits for it.
func (b *Background) Stop() {
	b.mu.Lock()
	b.ended = true
	for cancel := range b.ends {
		(*cancel)()
	}
	b.mu.Unlock()
	b.group.Wait()
}
