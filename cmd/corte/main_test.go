package main

import (
	"bufio"
	"bytes"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"
)

// The start command as people use it: it comes up, is killed hard, comes up
// again with its data, and ends in order on Ctrl-C.
func TestDemoSurvivesBeingKilled(t *testing.T) {
	bin := filepath.Join(t.TempDir(), "corte")
	if out, err := exec.Command("go", "build", "-o", bin, ".").CombinedOutput(); err != nil {
		t.Fatalf("%v: %s", err, out)
	}
	data, err := os.MkdirTemp("", "corte-demo-")
	if err != nil {
		t.Fatal(err)
	}
	defer os.RemoveAll(data)
	addr := freeAddr(t)

	first, _ := start(t, bin, data, addr)
	if out, err := collect(bin, data, addr); err == nil || !strings.Contains(out, "is in use") {
		t.Errorf("a second server on the same port: %v, %s", err, out)
	}
	_ = first.Process.Kill()
	_ = first.Wait()

	again, rest := start(t, bin, data, addr)
	r, err := http.Get("http://" + addr + "/api/v1/blades")
	if err != nil {
		t.Fatal(err)
	}
	body, _ := io.ReadAll(r.Body)
	r.Body.Close()
	if !bytes.Contains(body, []byte("Plough")) {
		t.Errorf("after the kill the rack is %s", body)
	}
	_ = again.Process.Signal(os.Interrupt)
	said, _ := io.ReadAll(rest)
	if err := again.Wait(); err != nil || !bytes.Contains(said, []byte("stopping")) {
		t.Errorf("Ctrl-C: %v, %s", err, said)
	}
	if _, err := os.Stat(filepath.Join(data, "cluster", "postmaster.pid")); err == nil {
		t.Error("PostgreSQL still runs after Corte has ended")
	}
}

func TestListenKeepsToLoopback(t *testing.T) {
	for _, addr := range []string{"0.0.0.0:8254", "192.0.2.1:80", ":8254", "shop"} {
		if l, err := listen(addr); err == nil {
			l.Close()
			t.Errorf("listens on %s", addr)
		}
	}
}

func TestVerifySaysWhatFails(t *testing.T) {
	bad := filepath.Join(t.TempDir(), "bad.json")
	if err := os.WriteFile(bad, []byte(`[{"kind":"guess","input":{},"want":{}}]`), 0o600); err != nil {
		t.Fatal(err)
	}
	for file, ok := range map[string]bool{"../../internal/verify/testdata/cutting.json": true, bad: false, "none.json": false} {
		c := verifyCommand()
		var out bytes.Buffer
		c.SetOut(&out)
		c.SilenceErrors, c.SilenceUsage = true, true
		c.SetArgs([]string{file})
		if err := c.Execute(); (err == nil) != ok {
			t.Errorf("%s: %v\n%s", file, err, &out)
		}
	}
}

func command(bin, data, addr string) *exec.Cmd {
	c := exec.Command(bin, "demo")
	c.Env = append(os.Environ(), "DATABASE_URL=", "CORTE_DATA="+data, "CORTE_LISTEN="+addr, "CORTE_LOG=error")
	c.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGTERM}
	return c
}

func collect(bin, data, addr string) (string, error) {
	out, err := command(bin, data, addr).CombinedOutput()
	return string(out), err
}

// start runs the command until it says that it is ready, and returns what it
// says afterwards.
func start(t *testing.T, bin, data, addr string) (*exec.Cmd, io.Reader) {
	t.Helper()
	c := command(bin, data, addr)
	c.Stderr = os.Stderr
	out, err := c.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := c.Start(); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = c.Process.Kill() })
	said := bufio.NewReader(out)
	timer := time.AfterFunc(time.Minute, func() { _ = c.Process.Kill() })
	defer timer.Stop()
	line, err := said.ReadString('\n')
	if err != nil || !strings.Contains(line, addr) {
		t.Fatalf("it says %q, %v", line, err)
	}
	return c, said
}

func freeAddr(t *testing.T) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	defer l.Close()
	return l.Addr().String()
}
