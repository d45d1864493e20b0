package main

import (
	"bytes"
	"context"
	"net"
	"net/http"
	"strings"
	"testing"
	"time"
)

// A port that is taken is named, with the setting that changes it.
func TestPortsThatAreTaken(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	defer l.Close()
	_, port, _ := net.SplitHostPort(l.Addr().String())
	if _, err := listen(
		"127.0.0.1", port, "OPENPLOT_PORT",
	); err == nil || !strings.Contains(err.Error(), port) || !strings.Contains(err.Error(), "OPENPLOT_PORT") {
		t.Errorf("%v", err)
	}
}

// Both origins answer until the context ends; what is being answered then is finished.
func TestServersEndWithTheirContext(t *testing.T) {
	var ls [2]net.Listener
	for i := range ls {
		l, err := listen("127.0.0.1", "0", "")
		if err != nil {
			t.Fatal(err)
		}
		ls[i] = l
	}
	begun, goOn := make(chan struct{}), make(chan struct{})
	slow := http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		close(begun)
		<-goOn
		_, _ = w.Write([]byte("whole"))
	})
	quick := http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) { _, _ = w.Write([]byte("pages")) })
	ctx, cancel := context.WithCancel(t.Context())
	ended := make(chan error, 1)
	go func() { ended <- run(ctx, ls[:], []http.Handler{slow, quick}) }()

	r, err := http.Get("http://" + ls[1].Addr().String())
	if err != nil || r.StatusCode != http.StatusOK {
		t.Fatal(err)
	}
	r.Body.Close()
	answer := make(chan string, 1)
	go func() {
		r, err := http.Get("http://" + ls[0].Addr().String())
		if err != nil {
			answer <- err.Error()
			return
		}
		defer r.Body.Close()
		var b bytes.Buffer
		_, _ = b.ReadFrom(r.Body)
		answer <- b.String()
	}()
	<-begun
	cancel()
	time.Sleep(50 * time.Millisecond) // until no more are taken
	close(goOn)
	if got := <-answer; got != "whole" {
		t.Errorf("what was under way ended as %q", got)
	}
	if err := <-ended; err != nil {
		t.Errorf("ended with %v", err)
	}
	if _, err := http.Get("http://" + ls[1].Addr().String()); err == nil {
		t.Error("it still answers")
	}
}
