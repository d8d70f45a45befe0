package httpapi

import (
	"context"
	"io"
	"sync"
	"time"

	"github.com/gin-gonic/gin"

	"corte/core/say"
	"corte/internal/record"
	"corte/internal/refusal"
)

// A budget bounds work that takes a core for seconds: one of a kind for each
// person at a time, and a few on the whole server. Whoever finds no place is
// sent away with 429 and told when to come back.
type budget struct {
	places chan struct{}
	wait   time.Duration // for a place on the server
	grace  time.Duration // for one's own last turn to end, as where a page is loaded again
	busy   say.Line

	mu sync.Mutex
	by map[string]bool // people who have a place or wait for one
}

func newBudget(places int, wait, grace time.Duration, busy say.Line) *budget {
	return &budget{places: make(chan struct{}, places), wait: wait, grace: grace, busy: busy, by: map[string]bool{}}
}

// Reading a photo takes about a hundred megabytes and a second or two of a core;
// listening takes a hundredth of a core for as long as somebody saws.
func newLooks() *budget {
	return newBudget(2, 5*time.Second, 0, say.Of("other photos are being processed. Nothing was saved. Send yours again in a moment"))
}

func newEars() *budget {
	return newBudget(16, 0, 2*time.Second, say.Of("this server is listening to as many saws as it can. Try again when another page stops"))
}

// take reserves a place until done is called.
func (b *budget) take(ctx context.Context) (done func(), err error) {
	who := personOf(ctx)
	for until := time.Now().Add(b.grace); !b.begin(who); time.Sleep(look) {
		if ctx.Err() != nil || time.Now().After(until) {
			return nil, b.full(say.Of("you already have one of these open. Wait until it is done, or close the other page"))
		}
	}
	leave := func() {
		b.mu.Lock()
		delete(b.by, who)
		b.mu.Unlock()
	}
	for until := time.Now().Add(b.wait); ; time.Sleep(look) {
		select {
		case b.places <- struct{}{}:
			return func() { <-b.places; leave() }, nil
		default:
		}
		if ctx.Err() != nil || time.Now().After(until) {
			break
		}
	}
	leave()
	return nil, b.full(b.busy)
}

// begin reserves the turn of a caller and reports whether they had none yet.
func (b *budget) begin(who string) bool {
	b.mu.Lock()
	defer b.mu.Unlock()
	taken := b.by[who]
	b.by[who] = true
	return !taken
}

const look = 50 * time.Millisecond // between looks at whether a turn has ended

func (b *budget) full(why say.Line) error {
	return &refusal.Error{Reason: refusal.TooOften, What: why, After: 5 * time.Second}
}

// personOf tells people apart as far as a budget needs: by their place in the
// shop, or by their address where no one is known.
func personOf(ctx context.Context) string {
	a := record.ActorOf(ctx)
	if a.Member != nil {
		return a.Shop.String() + a.Member.String()
	}
	return a.Shop.String() + a.Name + " at " + a.Address
}

// mostDrained is what is still read of a body that is refused, so that the
// client hears the answer and not a closed connection.
const mostDrained = 64 << 20

// inBudget answers the paths of a budget only where there is a place. The whole
// answer is written before the place is free again.
func inBudget(photos *budget) gin.HandlerFunc {
	return func(c *gin.Context) {
		if !looks(c.FullPath()) {
			return
		}
		done, err := photos.take(c.Request.Context())
		if err != nil {
			_, _ = io.CopyN(io.Discard, c.Request.Body, mostDrained)
			refuseError(c, err)
			return
		}
		defer done()
		c.Next()
	}
}
