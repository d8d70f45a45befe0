package record

import (
	"context"
	"fmt"
	"slices"

	"github.com/google/uuid"
)

// A Role is what somebody may do in a shop, each more than the one before.
type Role uint8

const (
	Nobody  Role = iota // not known here: only what a stranger may
	Viewer              // looks
	Learner             // works at the saws
	Worker              // changes the rack and the records
	Owner               // runs the shop
)

var roleNames = [...]string{"nobody", "viewer", "learner", "worker", "owner"}

func (r Role) String() string {
	if int(r) < len(roleNames) {
		return roleNames[r]
	}
	return fmt.Sprintf("role %d", uint8(r))
}

// ParseRole is the inverse of Role.String for those that a member can have.
func ParseRole(s string) (Role, error) {
	if i := slices.Index(roleNames[:], s); i > 0 {
		return Role(i), nil
	}
	return Nobody, fmt.Errorf("%q is not a role", s)
}

// A Way is how somebody came in.
type Way uint8

const (
	Out      Way = iota // not at all
	Open                // without sign-in, on this machine
	SignedIn            // with a password or a passkey
	Tablet              // at a shop's tablet, by a tapped name or none yet
	Token               // a script
)

// An Actor is who does something in a shop. The zero Actor is a stranger.
type Actor struct {
	Shop    uuid.UUID
	Member  *uuid.UUID // nil for a script, a tablet where nobody was tapped, and where there is no sign-in
	Name    string     // that work goes under; empty where nobody is known
	Role    Role
	Way     Way
	Address string // that it came from over the network
}

// Same reports whether an actor is who another was, with what they could do. It
// leaves aside where they ask from.
func (a Actor) Same(b Actor) bool {
	same := a.Member == b.Member || a.Member != nil && b.Member != nil && *a.Member == *b.Member
	return same && a.Shop == b.Shop && a.Role == b.Role && a.Way == b.Way && a.Name == b.Name
}

// Who names the actor to an owner who looks it up later.
func (a Actor) Who() string {
	switch {
	case a.Name != "":
		return a.Name
	case a.Way == Open:
		return "a person at this computer"
	}
	return "somebody"
}

type actorKey struct{}

// As is a context in which an actor acts.
func As(ctx context.Context, a Actor) context.Context { return context.WithValue(ctx, actorKey{}, a) }

// ActorOf is who acts in a context; a stranger where nobody was named.
func ActorOf(ctx context.Context) Actor {
	a, _ := ctx.Value(actorKey{}).(Actor)
	return a
}

// Alone is what the one who asks may do alone on a saw.
type Alone struct {
	Asked bool     // whether the shop asks for it, of them
	Stop  bool     // whether it stops what they are not signed off for
	Cuts  []string // that they are signed off for
}
