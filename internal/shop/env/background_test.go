package env

import (
	"context"
	"testing"
)

// Work outlives the request that began it, ends with Stop, and Stop waits for it;
// after that nothing is begun.
func TestStopWaitsForTheBackground(t *testing.T) {
	b := NewBackground()
	request, answered := context.WithCancel(t.Context())
	looked, ended := make(chan struct{}), false
	b.Go(request, func(ctx context.Context) {
		answered()
		if ctx.Err() != nil {
			t.Error("it ended with its request")
		}
		close(looked)
		<-ctx.Done()
		ended = true
	})
	<-looked
	b.Stop()
	if !ended {
		t.Error("Stop did not wait")
	}
	b.Go(t.Context(), func(context.Context) { t.Error("begun after Stop") })
	b.Stop()
}
