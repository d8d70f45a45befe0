package practice

import (
	"math/rand/v2"
	"slices"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/starter"
)

// ranks is a ranking of what was shown.
type ranks struct {
	request choose.Request
	rack    []choose.Candidate
	ranking choose.Ranking
}

// asGood is the share of the best score from which a blade is as good an answer:
// the difference is one that nobody sees. Judgement.
const asGood = 0.97

func (t *Task) which(r *rand.Rand, rack []choose.Candidate) {
	w := starter.Saw(saw.Table)
	rack = slices.DeleteFunc(slices.Clone(rack), func(c choose.Candidate) bool {
		return c.Barred != nil || c.Blade.Make != blade.Toothed || c.Blade.HookUnknown || len(choose.MountStops(c.Blade, w)) > 0
	})
	for {
		req := choose.Request{Saw: w, Job: t.cut(r)}
		req.Job.Exit, req.Job.Other = cut.UsualSupport(req.Job.Direction, cut.Along, true)
		req.Job.Exit = cut.ZeroClearance
		if req.Job = choose.Settle(req.Job, w); choose.CheckJob(req.Job, w) != nil {
			continue
		}
		five := t.five(r, rack)
		k := choose.Rank(req, five)
		if len(k.Fit) == 0 || choose.Judge(k.Fit[0].Figures) != choose.Clear {
			continue
		}
		if good := rankedGood(k); good > 4-t.Level { // one that is right at the hardest, up to three at the easiest
			continue
		}
		t.ranks = &ranks{req, five, k}
		break
	}
	j := t.ranks.request.Job
	at := j.Thickness
	switch {
	case j.Direction == cut.Sheet:
		t.Ask = say.Of("Cut a sheet of %s, %s thick, to size. Its face will be visible. Which blade?", say.Word(j.Material.Name), say.Set(at))
	case j.Direction.Across():
		t.Ask = say.Of("Crosscut %s, %s thick and %s wide. The ends will be visible. Which blade?", say.Word(j.Material.Name), say.Set(at), say.Set(j.Width))
	default:
		t.Ask = say.Of("Rip %s, %s thick and %s long. The edge goes to the jointer. Which blade?", say.Word(j.Material.Name), say.Set(at), say.Set(j.Length))
	}
	for i, c := range t.ranks.rack {
		b := c.Blade
		t.Choices = append(t.Choices, Choice{Key: letters[i], Blade: &b})
	}
	t.truth = letters[t.ranks.ranking.Fit[0].Index]
}

// cut is one of the kind that is trained.
func (t *Task) cut(r *rand.Rand) cut.Job {
	var j cut.Job
	switch t.Skill.Of() {
	case "rip":
		j.Material, j.Finish, j.Direction = wood(pick(r, woods...)), cut.Rough, cut.Rip
		j.Thickness, j.Width, j.Length = measure.Length(19+3*r.IntN(9)), measure.Length(60+20*r.IntN(5)), measure.Length(600+100*r.IntN(7))
	case "crosscut":
		j.Material, j.Finish, j.Direction = wood(pick(r, woods...)), cut.Show, cut.Crosscut
		j.Thickness, j.Width, j.Length = measure.Length(16+3*r.IntN(4)), measure.Length(90+20*r.IntN(8)), 900
	default:
		j.Material, j.Finish, j.Direction = wood(pick(r, sheets...)), cut.Show, cut.Sheet
		j.Thickness, j.Width, j.Length = measure.Length(9+3*r.IntN(4)), measure.Length(300+50*r.IntN(6)), 600
	}
	return j
}

var sheets = []string{"birch-ply", "melamine-board", "mdf"}

// five blades that look different: of the rack as far as it has them, and usual
// ones.
func (t *Task) five(r *rand.Rand, rack []choose.Candidate) (out []choose.Candidate) {
	var all []choose.Candidate
	for _, i := range r.Perm(len(rack)) {
		all = append(all, rack[i])
	}
	usual := starter.Blades(starter.Saw(saw.Table))
	for _, i := range r.Perm(len(usual)) {
		b := usual[i].Blade
		b.KeptFor, b.MaxRPM = blade.UseGeneral, 7000
		if t.Level > 1 { // not always what the book says of them
			b.Teeth += 2 * b.GroupSize() * r.IntN(2)
			b.Hook += float64(r.IntN(3) - 1)
		}
		all = append(all, choose.Candidate{Blade: b})
	}
	for _, c := range all {
		alike := slices.ContainsFunc(out, func(o choose.Candidate) bool {
			return o.Blade.Teeth == c.Blade.Teeth && o.Blade.Grind == c.Blade.Grind && o.Blade.Hook == c.Blade.Hook && o.Blade.Kerf == c.Blade.Kerf
		})
		if c.Mounted, c.Blade.KeptFor = false, blade.UseGeneral; !alike {
			out = append(out, c) // what its owner keeps it for cannot be seen, nor whether it is on
		}
		if len(out) == len(letters) {
			break
		}
	}
	return out
}

// rankedGood is how many of a ranking are as good an answer as the first.
func rankedGood(k choose.Ranking) (n int) {
	for _, o := range k.Fit {
		if o.Score >= asGood*k.Fit[0].Score {
			n++
		}
	}
	return n
}

// judge tells every blade's feed range and what decided about it, in the order in
// which they were shown.
func (k *ranks) judge(choice string) (right bool, told []Told) {
	told = make([]Told, len(k.rack))
	for i, o := range k.ranking.Fit {
		c := k.rack[o.Index]
		told[o.Index] = Told{Key: letters[o.Index], Verdict: o.Verdict(true, c.State), Window: o.Figures.Window}
		for _, reason := range k.ranking.Reasons(k.request, c, o) {
			told[o.Index].Says = append(told[o.Index].Says, reason.Text)
		}
		if letters[o.Index] == choice {
			right = i == 0 || o.Score >= asGood*k.ranking.Fit[0].Score
		}
	}
	for _, o := range k.ranking.Stopped {
		told[o.Index] = Told{Key: letters[o.Index], Verdict: choose.Halt}
		for _, s := range o.Stops {
			told[o.Index].Says = append(told[o.Index].Says, s.Why)
		}
	}
	return right, told
}
