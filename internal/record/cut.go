package record

import (
	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/cut"
)

// A Cut is a cut as somebody says it, on a saw of their shop. It is the Cut of
// the contract as well.
type Cut struct {
	SawID uuid.UUID `json:"saw_id"`
	cut.Cut
}

// CutOf is what a job would be said as, with nothing left out.
func CutOf(saw uuid.UUID, j cut.Job) Cut { return Cut{saw, j.Cut()} }

// Job settles what the cut leaves open on its saw.
func (c Cut) Job(s Saw) (cut.Job, error) { return choose.Job(c.Cut, s.Saw) }

// Unanswered is the cut without what somebody answered to a question of safety.
func (c Cut) Unanswered() Cut { return Cut{c.SawID, c.Cut.Unanswered()} }
