package locale_test

import (
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"corte/core/measure"
	"corte/core/say"
	"corte/internal/locale"
)

var verb = regexp.MustCompile(`%(\[\d+\])?[-+# 0-9.]*[a-zA-Z%]`)

// verbs are those of a form, without the order in which they stand.
func verbs(form string) []string {
	all := verb.FindAllString(form, -1)
	for i, v := range all {
		all[i] = regexp.MustCompile(`\[\d+\]`).ReplaceAllString(v, "")
	}
	slices.Sort(all)
	return all
}

// Each language has every form, with the same figures in it, and no other.
func TestEveryLanguageIsWhole(t *testing.T) {
	tags := locale.Tags()
	if tags[0] != locale.English || !slices.Contains(tags, "es") {
		t.Fatalf("languages %v", tags)
	}
	for _, tag := range tags[1:] {
		f, err := locale.Read(tag)
		if err != nil {
			t.Fatal(err)
		}
		for form, said := range f.Forms {
			switch {
			case said == "":
				t.Errorf("%s lacks %q", tag, form)
			case !slices.Equal(verbs(form), verbs(said)):
				t.Errorf("%s: %q has other figures than %q", tag, said, form)
			case strings.HasSuffix(form, ".") != strings.HasSuffix(said, ".") || strings.HasSuffix(form, "?") != strings.HasSuffix(said, "?"):
				t.Errorf("%s: %q ends otherwise than %q", tag, said, form)
			}
			if lacks := locale.Lacks(say.Line{Form: form}); lacks != nil {
				t.Errorf("%s has %q, which the code doesn't say", tag, form)
			}
		}
		if len(f.Months) != 12 || !strings.Contains(f.Date, "{month}") || f.Name == "" {
			t.Errorf("%s: %+v", tag, f.Months)
		}
	}
}

func TestSpanish(t *testing.T) {
	es := say.Voice{Language: locale.Of("es")}
	day := say.On(time.Date(2026, 12, 2, 0, 0, 0, 0, time.UTC))
	for want, l := range map[string]say.Line{
		"Pon la guía a la izquierda de la hoja.": say.Of("Put the fence to the %s of the blade.", say.Word("left")),
		"12,5 mm y 3 mm":                 say.Of("%s", say.And{say.Of("%s", measure.Length(12.5)), say.Of("%s", measure.Length(3))}),
		"Plough e Ilse":                  say.Of("%s", say.And{say.Of("%s", "Plough"), say.Of("%s", "Ilse")}),
		"Plough y hielo":                 say.Of("%s", say.And{say.Of("%s", "Plough"), say.Of("%s", "hielo")}),
		"Rook u Otter":                   say.Of("%s", say.Or{say.Of("%s", "Rook"), say.Of("%s", "Otter")}),
		"margen de avance amplio (2,8×)": say.Of("%s feed range (%.1f×)", say.Word("roomy"), 2.8),
		"movida o golpeada el 2 de diciembre de 2026 y sin medir desde entonces": say.Of("moved or bumped on %s and not measured since", day),
		"Plough está en la sierra y tarda 4 min, y Rook tardaría 5 min. Déjala":  say.Of("%[1]s is on the saw and takes %[3]s, and %[2]s would take %[4]s. Stay", "Plough", "Rook", say.Of("%.0f min", 4.0), say.Of("%.0f min", 5.0)),
		"nobody translated this": say.Of("nobody translated this"),
	} {
		if got := es.Say(l); got != want {
			t.Errorf("said %q, want %q", got, want)
		}
	}
	for _, tag := range []string{"", "en", "xx"} {
		if locale.Of(tag) != nil {
			t.Errorf("%q is a language", tag)
		}
	}
}
