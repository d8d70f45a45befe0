package main

import (
	"bytes"
	"context"
	"io"
	"net/http"
	"os"
	"runtime/pprof"
	"strings"
	"testing"
	"time"
)

// Whatever a server started has ended when it has stopped: no goroutine of Corte
// is left, though a page still listened and an import was under way.
func TestNothingRunsAfterAStop(t *testing.T) {
	data, err := os.MkdirTemp("", "corte-stopped-")
	if err != nil {
		t.Fatal(err)
	}
	defer os.RemoveAll(data)
	addr := freeAddr(t)
	for name, value := range map[string]string{"CORTE_DATA": data, "CORTE_LISTEN": addr, "CORTE_DEBUG": freeAddr(t), "CORTE_LOG": "error", "DATABASE_URL": ""} {
		t.Setenv(name, value)
	}
	ctx, stop := context.WithCancel(t.Context())
	ended := make(chan error, 1)
	go func() { ended <- run(ctx, false, furnishDemo) }()
	healthy(t, addr, 60*time.Second)
	listening, err := http.Get("http://" + addr + "/api/v1/events")
	if err != nil {
		t.Fatal(err)
	}
	defer listening.Body.Close()
	file := "at,kind,blade,saw,material,thickness_mm,width_mm,length_mm,height_mm\n" + strings.Repeat("2021-03-01T08:00:00Z,cut,Plough,Long Table,red-oak,20,80,900,30\n", 4000)
	req, err := http.NewRequestWithContext(t.Context(), http.MethodPut, "http://"+addr+"/api/v1/log-imports/6c1b1c1e-1111-4222-8333-944455566677", strings.NewReader(file))
	if err != nil {
		t.Fatal(err)
	}
	req.Header.Set("Content-Type", "application/octet-stream")
	if r, err := http.DefaultClient.Do(req); err != nil || r.StatusCode >= 300 {
		t.Fatalf("an import: %v, %v", r, err)
	} else {
		r.Body.Close()
	}
	stop()
	if err := <-ended; err != nil {
		t.Error(err)
	}
	_, _ = io.Copy(io.Discard, listening.Body)
	http.DefaultClient.CloseIdleConnections()
	left := func() (ours []string) {
		var all bytes.Buffer
		_ = pprof.Lookup("goroutine").WriteTo(&all, 1)
		for _, one := range strings.Split(all.String(), "\n\n") {
			if strings.Contains(one, "corte/") && !strings.Contains(one, "testing.") {
				ours = append(ours, one)
			}
		}
		return ours
	}
	if ours := left(); len(ours) > 0 {
		t.Errorf("%d are left: %s", len(ours), strings.Join(ours, "\n\n"))
	}
}
