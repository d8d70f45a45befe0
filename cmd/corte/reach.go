package main

import (
	"crypto/tls"
	"errors"
	"fmt"
	"net"
	"net/netip"
	"os"
	"strings"
	"sync"
	"syscall"
	"time"
)

// A reach is how Corte is reached, as the settings say it: by whom, under which
// names, and over what.
type reach struct {
	signIn    bool
	secure    bool // browsers reach it over TLS, here or at a proxy
	cert, key string
}

// readAlong is what CORTE_PLAIN_HTTP must say.
const readAlong = "others-may-read-along"

// reached reads how Corte is reached, and refuses what would let somebody in who
// was not meant to be. usual is whether people sign in where nothing is said.
func (s settings) reached(usual bool) (reach, error) {
	r := reach{signIn: usual, cert: s.Cert, key: s.Key}
	switch s.SignIn {
	case "":
	case "on":
		r.signIn = true
	case "off":
		r.signIn = false
	default:
		return r, fmt.Errorf("CORTE_SIGN_IN is %q. It must be on or off", s.SignIn)
	}
	here, err := onLoopback("CORTE_LISTEN", s.Listen)
	if err != nil {
		return r, err
	}
	for _, p := range s.Proxies {
		if _, err := netip.ParsePrefix(p); err == nil {
			continue
		}
		if _, err := netip.ParseAddr(p); err != nil {
			return r, fmt.Errorf("CORTE_PROXY %q is no address such as 192.0.2.7, and no range such as 192.0.2.0/24", p)
		}
	}
	proxied := len(s.Proxies) > 0
	r.secure = r.cert != "" || proxied
	switch {
	case !r.signIn && !here:
		return r, fmt.Errorf("CORTE_LISTEN %q is not on loopback; without sign-in Corte answers on this machine alone (CORTE_SIGN_IN=on)", s.Listen)
	case !r.signIn && len(s.Hosts)+len(s.Proxies) > 0:
		return r, errors.New("CORTE_HOSTS and CORTE_PROXY bring others to Corte; without sign-in it answers on this machine alone (CORTE_SIGN_IN=on)")
	case (r.cert == "") != (r.key == ""):
		return r, errors.New("CORTE_TLS_CERT and CORTE_TLS_KEY go together; one of them is missing")
	case !here && len(s.Hosts) == 0:
		return r, errors.New("CORTE_HOSTS is missing: say under which names or addresses browsers reach Corte, such as CORTE_HOSTS=corte.example,192.0.2.5")
	case !here && !r.secure && s.Plain != readAlong:
		return r, fmt.Errorf("CORTE_LISTEN %q is on a network, where passwords and cookies could be read along. Name a certificate (CORTE_TLS_CERT, CORTE_TLS_KEY) or the proxy that has one (CORTE_PROXY); or say CORTE_PLAIN_HTTP=%s if that is all right there", s.Listen, readAlong)
	case s.Plain != "" && s.Plain != readAlong:
		return r, fmt.Errorf("CORTE_PLAIN_HTTP is %q; the only thing it can say is %s", s.Plain, readAlong)
	}
	return r, nil
}

func onLoopback(setting, addr string) (bool, error) {
	host, _, err := net.SplitHostPort(addr)
	if err != nil {
		return false, fmt.Errorf("%s %q is not an address such as 127.0.0.1:8254", setting, addr)
	}
	ip := net.ParseIP(host)
	return host == "localhost" || ip != nil && ip.IsLoopback(), nil
}

// listen opens the address that a setting names.
func listen(setting, addr string) (net.Listener, error) {
	l, err := net.Listen("tcp", addr)
	if errors.Is(err, syscall.EADDRINUSE) {
		return nil, fmt.Errorf("%s is in use, perhaps by another Corte; stop that one, or choose another with %s=127.0.0.1:8255", addr, setting)
	}
	return l, err
}

// over is a listener that speaks TLS where there is a certificate.
func (r reach) over(l net.Listener) (net.Listener, error) {
	if r.cert == "" {
		return l, nil
	}
	c := &certificate{cert: r.cert, key: r.key}
	if _, err := c.get(nil); err != nil {
		return nil, fmt.Errorf("the certificate cannot be read: %w", err)
	}
	return tls.NewListener(l, &tls.Config{MinVersion: tls.VersionTLS12, GetCertificate: c.get, NextProtos: []string{"h2", "http/1.1"}}), nil
}

// url is where a browser finds it: under the name that it listens on, or the
// first that it is reached under where that is any.
func (r reach) url(l net.Listener, s settings) string {
	scheme := "http://"
	if r.secure {
		scheme = "https://"
	}
	host, _, _ := net.SplitHostPort(s.Listen)
	_, port, _ := net.SplitHostPort(l.Addr().String())
	if ip := net.ParseIP(host); len(s.Hosts) > 0 && (host == "" || ip != nil && ip.IsUnspecified()) {
		host = s.Hosts[0]
	}
	if len(s.Proxies) > 0 && len(s.Hosts) > 0 {
		return scheme + s.Hosts[0] // the proxy's port is the usual one
	}
	return scheme + net.JoinHostPort(host, port)
}

// A certificate is read again when its file has changed, so that a new one needs
// no new start.
type certificate struct {
	cert, key string

	mu   sync.Mutex
	at   time.Time
	last *tls.Certificate
}

func (c *certificate) get(*tls.ClientHelloInfo) (*tls.Certificate, error) {
	c.mu.Lock()
	defer c.mu.Unlock()
	info, err := os.Stat(c.cert)
	if err == nil && c.last != nil && info.ModTime().Equal(c.at) {
		return c.last, nil
	}
	if err == nil {
		var read tls.Certificate
		if read, err = tls.LoadX509KeyPair(c.cert, c.key); err == nil {
			c.last, c.at = &read, info.ModTime()
		}
	}
	if c.last != nil {
		return c.last, nil // half of a new pair is there, or none: the old one goes on
	}
	return nil, err
}

// lower is hosts as they are compared.
func lower(hosts []string) []string {
	out := make([]string, len(hosts))
	for i, h := range hosts {
		out[i] = strings.ToLower(strings.Trim(strings.TrimSpace(h), "[]"))
	}
	return out
}
