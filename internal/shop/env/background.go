package env

import (
	"context"
	"sync"
)

// Background is the work that goes on after the request that began it was
// answered. Stop ends it.
type Background struct {
	stopping context.Context // ends with Stop
	stop     context.CancelFunc

	mu    sync.Mutex // so that nothing joins the group while Stop waits for it
	group sync.WaitGroup
}

// NewBackground is ready for work.
func NewBackground() *Background {
	b := &Background{}
	b.stopping, b.stop = context.WithCancel(context.Background())
	return b
}

// Go runs work in a goroutine with the values of a request's context. The context is
// cancelled by Stop, not with the request. After Stop, Go does nothing.
func (b *Background) Go(ctx context.Context, work func(context.Context)) {
	b.mu.Lock()
	defer b.mu.Unlock()
	if b.stopping.Err() != nil {
		return
	}
	ctx, cancel := context.WithCancel(context.WithoutCancel(ctx))
	unlink := context.AfterFunc(b.stopping, cancel)
	b.group.Go(func() {
		defer cancel()
		defer unlink()
		work(ctx)
	})
}

// Stop cancels the work and waits for it.
func (b *Background) Stop() {
	b.mu.Lock()
	b.stop()
	b.mu.Unlock()
	b.group.Wait()
}
