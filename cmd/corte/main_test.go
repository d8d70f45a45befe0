package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"

	"corte/internal/pg"
)

// The start command as people use it: it comes up, is killed hard, comes up
// again with its data, and ends in order on Ctrl-C.
func TestDemoSurvivesBeingKilled(t *testing.T) {
	t.Parallel()
	bin := build(t)
	data, err := os.MkdirTemp("", "corte-demo-")
	if err != nil {
		t.Fatal(err)
	}
	defer os.RemoveAll(data)
	addr := freeAddr(t)

	first, _ := start(t, demoOf(bin, data, addr), addr)
	if out, err := demoOf(bin, data, addr).CombinedOutput(); err == nil || !bytes.Contains(out, []byte("is in use")) {
		t.Errorf("a second server on the same port: %v, %s", err, out)
	}
	for name, says := range map[string]string{"conditions": "match their logs", "migrate": "up to date"} { // beside the one that runs
		if out, err := command(bin, name, "CORTE_DATA="+data).CombinedOutput(); err != nil || !bytes.Contains(out, []byte(says)) {
			t.Errorf("%s: %v, %s", name, err, out)
		}
	}
	file := filepath.Join(data, "shop.corte.zip")
	for _, tt := range [][2]string{{"backup", "read back and whole"}, {"drill", "all the same"}, {"restore", "this shop isn't empty"}} {
		cmd := command(bin, tt[0], "CORTE_DATA="+data, "CORTE_SHOP=lanterngate")
		cmd.Args = append(cmd.Args, file)
		if out, err := cmd.CombinedOutput(); (err != nil) != (tt[0] == "restore") || !bytes.Contains(out, []byte(tt[1])) {
			t.Errorf("%s: %v, %s", tt[0], err, out)
		}
	}
	if kept, err := filepath.Glob(filepath.Join(data, "copies", "*.corte.zip")); err != nil || len(kept) != 1 {
		t.Errorf("the day's copy: %v, %v", kept, err)
	}
	_ = first.Process.Kill()
	_ = first.Wait()

	again, rest := start(t, demoOf(bin, data, addr), addr)
	if rack := get(t, addr, "/blades"); !strings.Contains(rack, "Plough") {
		t.Errorf("after the kill the rack is %s", rack)
	}
	if r, err := http.Get("http://" + addr + "/demo/bench"); err != nil {
		t.Error(err)
	} else if r.Body.Close(); r.Request.URL.Path != "/" {
		t.Errorf("who looks round where the demo shop is served comes to %v", r.Request.URL)
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

// cutBody is a cut on the demo shop's table saw, with KEY for its note.
func cutBody(t *testing.T, addr string) string {
	t.Helper()
	find := func(path, name string) string {
		var page struct {
			Items []struct{ ID, Name string }
		}
		if err := json.Unmarshal([]byte(get(t, addr, path)), &page); err != nil {
			t.Fatal(err)
		}
		for _, i := range page.Items {
			if i.Name == name {
				return i.ID
			}
		}
		t.Fatalf("no %s at %s", name, path)
		return ""
	}
	return fmt.Sprintf(`{"cut": {"saw_id": %q, "material": "red-oak", "direction": "rip", "thickness_mm": 20, "width_mm": 80, "length_mm": 900, "finish": "hidden"},
		"blade_id": %q, "height_mm": 30, "wall": "clean", "splinters": "none", "note": "KEY"}`, find("/saws", "Long Table"), find("/blades", "Plough"))
}

func TestAPoolerStandsBesideItsDatabase(t *testing.T) {
	t.Setenv("CORTE_POOLER", "postgres://127.0.0.1:6432/corte")
	if _, err := readSettings(); err == nil || !strings.Contains(err.Error(), "CORTE_POOLER needs DATABASE_URL") {
		t.Errorf("a pooler before Corte's own PostgreSQL: %v", err)
	}
	t.Setenv("DATABASE_URL", "postgres://127.0.0.1:5432/corte")
	if _, err := readSettings(); err != nil {
		t.Errorf("beside its database: %v", err)
	}
}

// Who is reached by others is so because somebody said so, in so many words.
func TestOnANetworkOnlyWhenAskedFor(t *testing.T) {
	const here, net = "127.0.0.1:0", "0.0.0.0:8254"
	hosts := []string{"corte.example"}
	for _, c := range []struct {
		settings
		usual bool
		want  string // of the refusal; empty where it goes, "secure" where cookies go over TLS alone
	}{
		{settings{Listen: here}, false, ""},
		{settings{Listen: "localhost:1"}, true, ""},
		{settings{Listen: "[::1]:1"}, false, ""},
		{settings{Listen: "shop"}, true, "not an address"},
		{settings{Listen: net}, false, "not on loopback"},
		{settings{Listen: ":8254"}, false, "not on loopback"},
		{settings{Listen: "192.0.2.1:80", SignIn: "off", Hosts: hosts, Plain: readAlong}, true, "not on loopback"},
		{settings{Listen: here, Hosts: hosts}, false, "on this machine alone"},
		{settings{Listen: here, Proxies: []string{"192.0.2.7"}}, false, "on this machine alone"},
		{settings{Listen: here, SignIn: "yes"}, true, "must be on or off"},
		{settings{Listen: net}, true, "CORTE_HOSTS"},
		{settings{Listen: net, Hosts: hosts}, true, "could be read along"},
		{settings{Listen: net, Hosts: hosts, Plain: "yes"}, true, "could be read along"},
		{settings{Listen: net, Hosts: hosts, Plain: readAlong}, true, ""},
		{settings{Listen: here, Plain: "yes"}, true, "the only thing it can say"},
		{settings{Listen: net, Hosts: hosts, Cert: "c"}, true, "go together"},
		{settings{Listen: net, Hosts: hosts, Cert: "c", Key: "k"}, true, "secure"},
		{settings{Listen: net, Hosts: hosts, Cert: "c", Key: "k", SignIn: "on"}, false, "secure"},
		{settings{Listen: net, Cert: "c", Key: "k"}, true, "CORTE_HOSTS"},
		{settings{Listen: net, Hosts: hosts, Proxies: []string{"192.0.2.0/24"}}, true, "secure"},
		{settings{Listen: here, Hosts: hosts, Proxies: []string{"proxy"}}, true, "no address"},
	} {
		r, err := c.reached(c.usual)
		switch {
		case c.want == "" || c.want == "secure":
			if err != nil || r.secure != (c.want == "secure") {
				t.Errorf("%+v: %+v, %v", c.settings, r, err)
			}
		case err == nil || !strings.Contains(err.Error(), c.want):
			t.Errorf("%+v: %v, not %q", c.settings, err, c.want)
		}
	}
	for _, addr := range []string{"0.0.0.0:8254", "192.0.2.1:80", ":8254", "shop"} {
		if _, _, err := debugServer(addr); err == nil || !strings.Contains(err.Error(), "CORTE_DEBUG") {
			t.Errorf("shows profiles on %s: %v", addr, err)
		}
	}
}

// What one asks of the command itself is answered, and what it has not is said.
func TestCommandsAreListed(t *testing.T) {
	for args, want := range map[string]string{"help": "CORTE_LISTEN", "version": "fold", "": "conditions", "serv": `no command "serv"`} {
		c := commands()
		var out bytes.Buffer
		c.SetOut(&out)
		c.SetArgs(strings.Fields(args))
		if err := c.Execute(); err != nil {
			out.WriteString(err.Error())
		}
		if !strings.Contains(out.String(), want) {
			t.Errorf("%q: %s", args, &out)
		}
	}
}

func TestVerifySaysWhatFails(t *testing.T) {
	bad := filepath.Join(t.TempDir(), "bad.json")
	if err := os.WriteFile(bad, []byte(`[{"kind":"guess","input":{},"want":{}}]`), 0o600); err != nil {
		t.Fatal(err)
	}
	for file, ok := range map[string]bool{"../../internal/verify/testdata/cutting.json": true, bad: false, "none.json": false} {
		if out, err := ran(verifyCommand(), file); (err == nil) != ok {
			t.Errorf("%s: %v\n%s", file, err, out)
		}
	}
}

// A shop of one's own on a database that runs elsewhere begins empty, and two
// servers can share it.
func TestServeOnAnotherDatabase(t *testing.T) {
	t.Parallel()
	bin := build(t)
	dir, err := os.MkdirTemp("", "corte-elsewhere-")
	if err != nil {
		t.Fatal(err)
	}
	defer os.RemoveAll(dir)
	elsewhere, err := pg.Start(t.Context(), pg.Options{Dir: dir, Throwaway: true})
	if err != nil {
		t.Fatal(err)
	}
	defer elsewhere.Stop()
	if err := elsewhere.EnsureDatabase(t.Context(), "shops"); err != nil {
		t.Fatal(err)
	}
	url := "DATABASE_URL=" + elsewhere.URL("shops")
	if out, err := command(bin, "migrate", url).CombinedOutput(); err != nil || !bytes.Contains(out, []byte("up to date")) {
		t.Fatalf("migrate: %v, %s", err, out)
	}
	// What a drill left that was killed goes at the next start; one of now stays.
	killed, under := scratchName+"1700000000_dead", fmt.Sprintf("%s%d_live", scratchName, time.Now().Unix())
	for _, name := range []string{killed, under} {
		if err := elsewhere.EnsureDatabase(t.Context(), name); err != nil {
			t.Fatal(err)
		}
	}
	ids := map[string]bool{}
	for range 2 {
		addr := freeAddr(t)
		start(t, command(bin, "serve", url, "CORTE_LISTEN="+addr, "CORTE_SIGN_IN=off"), addr)
		ids[get(t, addr, "/shop")] = true
		for name, want := range map[string]bool{killed: false, under: true} {
			conn, err := pgx.Connect(t.Context(), elsewhere.URL("shops"))
			if err != nil {
				t.Fatal(err)
			}
			var there bool
			if err := conn.QueryRow(t.Context(), `SELECT EXISTS (SELECT FROM pg_database WHERE datname = $1)`, name).Scan(&there); err != nil || there != want {
				t.Errorf("%s is there: %v, %v", name, there, err)
			}
			conn.Close(t.Context())
		}
		if got := get(t, addr, "/blades"); got != `{"items":[]}` {
			t.Errorf("an empty rack is %s", got)
		}
		// The demo shop is beside it, and stays beside it.
		var both sync.WaitGroup
		for range 2 {
			both.Go(func() {
				if got, err := fetch("http://" + addr + "/demo/api/v1/blades"); !strings.Contains(got, "Trapdoor") {
					t.Errorf("the demo shop's rack is %.200s, %v", got, err)
				}
			})
		}
		both.Wait()
	}
	if len(ids) != 1 {
		t.Errorf("two servers founded two shops: %v", ids)
	}
	out, err := command(bin, "serve", "DATABASE_URL=postgres://127.0.0.1:1/none", "CORTE_LISTEN="+freeAddr(t)).CombinedOutput()
	if err == nil || !bytes.Contains(out, []byte("database does not answer")) {
		t.Errorf("a database that is not there: %v, %s", err, out)
	}
}

// binDir holds the program that built builds once for all tests. TestMain removes it.
var binDir string

var built = sync.OnceValues(func() (bin string, err error) {
	if binDir, err = os.MkdirTemp("", "corte-built-"); err != nil {
		return "", err
	}
	bin = filepath.Join(binDir, "corte")
	out, err := exec.Command("go", "build", "-o", bin, ".").CombinedOutput()
	if err != nil {
		return "", fmt.Errorf("%w: %s", err, out)
	}
	return bin, nil
})

func TestMain(m *testing.M) {
	code := m.Run()
	os.RemoveAll(binDir)
	os.Exit(code)
}

func build(t *testing.T) string {
	t.Helper()
	bin, err := built()
	if err != nil {
		t.Fatal(err)
	}
	return bin
}

func get(t *testing.T, addr, path string) string {
	t.Helper()
	body, err := fetch("http://" + addr + "/api/v1" + path)
	if err != nil {
		t.Fatal(err)
	}
	return body
}

func fetch(url string) (string, error) {
	r, err := http.Get(url)
	if err != nil {
		return "", err
	}
	defer r.Body.Close()
	body, err := io.ReadAll(r.Body)
	if err == nil && r.StatusCode != http.StatusOK {
		err = fmt.Errorf("GET %s: %d", url, r.StatusCode)
	}
	return strings.TrimSpace(string(body)), err
}

func demoOf(bin, data, addr string) *exec.Cmd {
	return command(bin, "demo", "CORTE_DATA="+data, "CORTE_LISTEN="+addr)
}

func command(bin, name string, env ...string) *exec.Cmd {
	c := exec.Command(bin, name)
	c.Env = append(append(os.Environ(), "DATABASE_URL=", "CORTE_LOG=error"), env...)
	c.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGTERM}
	return c
}

// start runs the command until it says that it is ready, and returns what it
// says afterwards.
func start(t *testing.T, c *exec.Cmd, addr string) (*exec.Cmd, io.Reader) {
	t.Helper()
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

// Who sends half a request and then nothing is let go, and holds nobody up.
func TestSlowSendersAreLetGo(t *testing.T) {
	t.Parallel()
	bin := build(t)
	data, err := os.MkdirTemp("", "corte-slow-")
	if err != nil {
		t.Fatal(err)
	}
	defer os.RemoveAll(data)
	addr := freeAddr(t)
	server, _ := start(t, demoOf(bin, data, addr), addr)
	var stalled []net.Conn
	for i := range 200 {
		c, err := net.Dial("tcp", addr)
		if err != nil {
			t.Fatal(err)
		}
		defer c.Close()
		if i%2 == 0 {
			fmt.Fprintf(c, "POST /api/v1/plans HTTP/1.1\r\nHost: %s\r\nContent-Type: application/json\r\nContent-Length: 400\r\n\r\n{\"cut\": {", addr)
		} else {
			fmt.Fprintf(c, "GET /api/v1/blades HTTP/1.1\r\nHost: %s\r\nX-A: ", addr)
		}
		stalled = append(stalled, c)
	}
	at := time.Now()
	if got := get(t, addr, "/blades"); !strings.Contains(got, "Plough") || time.Since(at) > 5*time.Second {
		t.Errorf("held up for %v: %.100s", time.Since(at), got)
	}
	for _, c := range stalled {
		_ = c.SetReadDeadline(at.Add(25 * time.Second))
		if _, err := io.Copy(io.Discard, c); err != nil {
			t.Fatalf("after %v it is still held: %v", time.Since(at), err)
		}
	}
	_ = server.Process.Signal(os.Interrupt)
	_ = server.Wait()
}
