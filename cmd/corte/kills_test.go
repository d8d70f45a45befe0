package main

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"
)

// A burst of cuts is sent to a server, from several sides at once, and every one
// that was acknowledged is remembered.
type burst struct {
	t    *testing.T
	addr string
	body string // of a cut, with KEY for its note

	mu                 sync.Mutex
	sent, acknowledged map[string]bool
}

func (b *burst) post(key string) bool {
	r, err := http.NewRequest(http.MethodPost, "http://"+b.addr+"/api/v1/cuts", strings.NewReader(strings.ReplaceAll(b.body, "KEY", key)))
	if err != nil {
		return false
	}
	r.Header.Set("Content-Type", "application/json")
	r.Header.Set("Idempotency-Key", key)
	w, err := http.DefaultClient.Do(r)
	if err != nil {
		return false
	}
	defer w.Body.Close()
	return w.StatusCode == http.StatusCreated
}

// begin sends from four sides until the end is called.
func (b *burst) begin(name string) (end func()) {
	if b.body == "" {
		b.body = cutBody(b.t, b.addr)
	}
	if b.sent == nil {
		b.sent, b.acknowledged = map[string]bool{}, map[string]bool{}
	}
	var senders sync.WaitGroup
	stop := make(chan struct{})
	for sender := range 4 {
		senders.Go(func() {
			for i := 0; ; i++ {
				select {
				case <-stop:
					return
				default:
				}
				key := fmt.Sprintf("cut %s-%d-%d", name, sender, i)
				b.mu.Lock()
				b.sent[key] = true
				b.mu.Unlock()
				if !b.post(key) {
					time.Sleep(20 * time.Millisecond)
					continue
				}
				b.mu.Lock()
				b.acknowledged[key] = true
				b.mu.Unlock()
			}
		})
	}
	return func() {
		close(stop)
		senders.Wait()
	}
}

func (b *burst) stored() map[string]int {
	var file struct {
		Rows []struct {
			Note string `json:"note"`
		} `json:"rows"`
	}
	if err := json.Unmarshal([]byte(get(b.t, b.addr, "/log-exports?format=json&kind=cut")), &file); err != nil {
		b.t.Fatal(err)
	}
	n := map[string]int{}
	for _, r := range file.Rows {
		n[r.Note]++
	}
	return n
}

// settle checks that what was acknowledged is there once and nothing is twice;
// then sends all of it again, as tablets do that heard nothing, and checks anew.
func (b *burst) settle() {
	b.t.Helper()
	for pass := range 2 {
		n := b.stored()
		for key := range b.acknowledged {
			if n[key] != 1 {
				b.t.Errorf("pass %d: %s was acknowledged and is stored %d times", pass, key, n[key])
			}
		}
		for key := range b.sent {
			if n[key] > 1 {
				b.t.Errorf("pass %d: %s is stored %d times", pass, key, n[key])
			}
			if pass == 0 && b.post(key) {
				b.acknowledged[key] = true
			}
		}
	}
	if len(b.acknowledged) != len(b.sent) || len(b.sent) < 30 {
		b.t.Errorf("%d were sent and %d acknowledged in the end", len(b.sent), len(b.acknowledged))
	}
}

// What was acknowledged is there, once, after PostgreSQL, or it and the server,
// are killed in the middle of a burst of cuts; Corte is well again each time;
// and what was not acknowledged can be sent again.
func TestAcknowledgedIsThereAfterKills(t *testing.T) {
	t.Parallel()
	bin := build(t)
	data, err := os.MkdirTemp("", "corte-killed-")
	if err != nil {
		t.Fatal(err)
	}
	defer os.RemoveAll(data)
	addr := freeAddr(t)
	dice := rand.New(rand.NewPCG(9, 9))
	b := &burst{t: t, addr: addr}
	for round := range 3 {
		server, _ := start(t, demoOf(bin, data, addr), addr)
		end := b.begin(strconv.Itoa(round))
		pause := func() { time.Sleep(time.Duration(200+dice.IntN(300)) * time.Millisecond) }
		kills := 0
		if round == 0 {
			kills = 5
		}
		for range kills { // of PostgreSQL alone: all of it, or one that takes the rest along as a panic does
			for _, whom := range []func(int) int{func(pm int) int { return pm }, func(pm int) int { return child(t, pm) }} {
				pause()
				_ = syscall.Kill(whom(postmaster(t, data)), syscall.SIGKILL)
				healthy(t, addr, 20*time.Second)
			}
		}
		pause()
		_ = syscall.Kill(postmaster(t, data), syscall.SIGKILL)
		_ = server.Process.Kill()
		_ = server.Wait()
		end()
	}
	last, _ := start(t, demoOf(bin, data, addr), addr)
	b.settle()
	_ = last.Process.Signal(os.Interrupt)
	_ = last.Wait()
}

// Two PostgreSQL as scripts/standby.sh sets them up: the first is killed under a
// burst of cuts and the second promoted. Nothing that was acknowledged is lost,
// nothing is there twice, and the same server is well again.
func TestAStandbyTakesOver(t *testing.T) {
	t.Parallel()
	bin := build(t)
	dir, err := os.MkdirTemp("", "corte-standby-")
	if err != nil {
		t.Fatal(err)
	}
	defer os.RemoveAll(dir)
	if err := os.Chmod(dir, 0o755); err != nil { //nolint:gosec // the user postgres goes through it
		t.Fatal(err)
	}
	standby := func(args ...string) {
		t.Helper()
		if out, err := exec.Command("../../scripts/standby.sh", args...).CombinedOutput(); err != nil {
			t.Fatalf("standby.sh %v: %v, %s", args, err, out)
		}
	}
	port := func() string { return strings.TrimPrefix(freeAddr(t), "127.0.0.1:") }
	one, two := filepath.Join(dir, "one"), filepath.Join(dir, "two")
	p1, p2 := port(), port()
	standby("primary", one, p1)
	pid := postmaster(t, one)
	defer func() { _ = syscall.Kill(pid, syscall.SIGKILL) }()
	standby("follow", two, p2, one, p1)
	defer standby("stop", two)
	password, err := os.ReadFile(filepath.Join(one, "password"))
	if err != nil {
		t.Fatal(err)
	}
	url := fmt.Sprintf("DATABASE_URL=postgres://corte:%s@127.0.0.1:%s,127.0.0.1:%s/postgres?target_session_attrs=read-write", password, p1, p2)
	addr := freeAddr(t)
	server, _ := start(t, command(bin, "demo", url, "CORTE_LISTEN="+addr, "CORTE_COPIES=none"), addr)
	b := &burst{t: t, addr: addr}
	b.body = cutBody(t, addr)
	// While the second stands still, nothing is acknowledged.
	frozen := children(t, postmaster(t, two))
	for _, p := range frozen {
		_ = syscall.Kill(p, syscall.SIGSTOP)
	}
	answered := make(chan bool, 1)
	go func() { answered <- b.post("while it stands still") }()
	select {
	case kept := <-answered:
		t.Error("acknowledged by the first alone")
		answered <- kept
	case <-time.After(time.Second):
	}
	for _, p := range frozen {
		_ = syscall.Kill(p, syscall.SIGCONT)
	}
	if !<-answered {
		t.Error("and not when it goes on")
	}
	end := b.begin("before")
	time.Sleep(2 * time.Second)
	_ = syscall.Kill(pid, syscall.SIGKILL)
	time.Sleep(300 * time.Millisecond)
	at := time.Now()
	standby("promote", two)
	healthy(t, addr, 20*time.Second)
	t.Logf("well again %v after the promotion began, with %d acknowledged", time.Since(at).Round(time.Millisecond), len(b.acknowledged))
	time.Sleep(time.Second)
	end()
	b.settle()
	_ = server.Process.Signal(os.Interrupt)
	_ = server.Wait()
}

// postmaster is the one that runs. A backend that outlived the one before may
// answer for a moment, while the new one is still to come.
func postmaster(t *testing.T, data string) int {
	t.Helper()
	for deadline := time.Now().Add(5 * time.Second); time.Now().Before(deadline); time.Sleep(10 * time.Millisecond) {
		file, err := os.ReadFile(filepath.Join(data, "cluster", "postmaster.pid"))
		if err != nil {
			continue
		}
		first, _, _ := strings.Cut(string(file), "\n")
		if pid, err := strconv.Atoi(first); err == nil && syscall.Kill(pid, 0) == nil {
			return pid
		}
	}
	t.Fatal("no PostgreSQL came up in 5 s")
	return 0
}

// child is one of the postmaster's that holds shared memory: the newest. One that
// has only begun has none yet.
func child(t *testing.T, postmaster int) int {
	t.Helper()
	for deadline := time.Now().Add(5 * time.Second); time.Now().Before(deadline); time.Sleep(10 * time.Millisecond) {
		if all := children(t, postmaster); len(all) > 0 {
			return slices.Max(all)
		}
	}
	t.Fatal("PostgreSQL had nobody working for it in 5 s")
	return 0
}

func children(t *testing.T, postmaster int) (pids []int) {
	t.Helper()
	list, err := os.ReadFile(fmt.Sprintf("/proc/%d/task/%d/children", postmaster, postmaster))
	if err != nil {
		t.Fatal(err)
	}
	for _, one := range strings.Fields(string(list)) {
		if pid, err := strconv.Atoi(one); err == nil {
			pids = append(pids, pid)
		}
	}
	return pids
}

// healthy waits until a cut's worth of work is possible again.
func healthy(t *testing.T, addr string, patience time.Duration) {
	t.Helper()
	for deadline := time.Now().Add(patience); ; time.Sleep(20 * time.Millisecond) {
		r, err := http.Get("http://" + addr + "/api/v1/blades")
		if err == nil {
			r.Body.Close()
			if r.StatusCode == http.StatusOK {
				return
			}
		}
		if time.Now().After(deadline) {
			t.Fatalf("not well again after %v: %v, %v", patience, r, err)
		}
	}
}
