package main

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"reflect"
	"strings"

	"github.com/caarlos0/env/v11"
)

// settings come from the environment; help says what each is for.
type settings struct {
	DatabaseURL string   `env:"DATABASE_URL" help:"address of an existing PostgreSQL; otherwise Corte runs its own on loopback"`
	Pooler      string   `env:"CORTE_POOLER" help:"address of that database by way of a pooler that lends connections by the transaction; with DATABASE_URL"`
	Data        string   `env:"CORTE_DATA" help:"folder of Corte's own PostgreSQL; /var/lib/corte for root, else ~/.local/share/corte"`
	Listen      string   `env:"CORTE_LISTEN" envDefault:"127.0.0.1:8254" help:"address to serve on; on loopback, unless people sign in"`
	SignIn      string   `env:"CORTE_SIGN_IN" help:"on or off; on for serve, off for demo"`
	Hosts       []string `env:"CORTE_HOSTS" help:"names and addresses that browsers reach it under, with commas between"`
	Cert        string   `env:"CORTE_TLS_CERT" help:"file of the certificate; with CORTE_TLS_KEY"`
	Key         string   `env:"CORTE_TLS_KEY" help:"file of its key"`
	Proxies     []string `env:"CORTE_PROXY" help:"addresses of a proxy that has the certificate, with commas between"`
	Plain       string   `env:"CORTE_PLAIN_HTTP" help:"others-may-read-along, to serve a network without TLS"`
	Shop        string   `env:"CORTE_SHOP" envDefault:"shop" help:"which shop of the database serve serves"`
	Copies      string   `env:"CORTE_COPIES" help:"folder for daily backups; default copies in CORTE_DATA, none for no backups"`
	Keep        int      `env:"CORTE_KEEP" envDefault:"14" help:"copies of how many days are kept"`
	Debug       string   `env:"CORTE_DEBUG" help:"address on loopback for metrics and profiles; none without it"`
	LogLevel    string   `env:"CORTE_LOG" envDefault:"info" help:"debug, info, warn or error"`
	Gauges      []string `env:"CORTE_GAUGES" help:"addresses of dial gauges, with commas between"`
}

// settingsHelp lists the settings as help shows them.
func settingsHelp() string {
	var b strings.Builder
	b.WriteString("Settings come from the environment:\n")
	for f := range reflect.TypeFor[settings]().Fields() {
		fmt.Fprintf(&b, "  %-16s %s", f.Tag.Get("env"), f.Tag.Get("help"))
		if usual := f.Tag.Get("envDefault"); usual != "" {
			fmt.Fprintf(&b, " (%s)", usual)
		}
		b.WriteByte('\n')
	}
	return b.String()
}

func readSettings() (settings, error) {
	s, err := env.ParseAs[settings]()
	if err != nil {
		return s, err
	}
	if s.Pooler != "" && s.DatabaseURL == "" {
		return s, errors.New("CORTE_POOLER needs DATABASE_URL beside it: migrations and news between servers go past the pooler")
	}
	if s.Data == "" {
		s.Data = usualData()
	}
	if s.Copies == "" {
		s.Copies = filepath.Join(s.Data, "copies")
	}
	if s.Keep < 1 {
		return s, fmt.Errorf("CORTE_KEEP is %d. It must be at least 1, or set CORTE_COPIES=none for no backups", s.Keep)
	}
	return s, nil
}

// usualData is outside any source tree. Root's home is closed to the user
// postgres, so root's data live where a service's would.
func usualData() string {
	if os.Geteuid() == 0 {
		return "/var/lib/corte"
	}
	if dir := os.Getenv("XDG_DATA_HOME"); dir != "" {
		return filepath.Join(dir, "corte")
	}
	home, _ := os.UserHomeDir()
	return filepath.Join(home, ".local", "share", "corte")
}
