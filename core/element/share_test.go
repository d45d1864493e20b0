package element

import (
	"strings"
	"testing"

	"openplot/core/doc"
)

// Links hand on the page's own address and title (RFC 6068 §2 for mail); the button that
// copies isn't there until the script that does it shows it.
func TestShareLinks(t *testing.T) {
	b := builder()
	b.Self, b.Title, b.DropEmpty = "https://skerry.example/fares", "Fares & more", true
	n := b.Section(section(&doc.Block{ID: "b1", Kind: doc.Share, Content: Start(doc.Share).Content}))
	if got, want := n.find("a").value("href"), "mailto:?subject=Fares%20%26%20more&body=https%3A%2F%2Fskerry.example%2Ffares"; got != want {
		t.Errorf("mail leads to %s, want %s", got, want)
	}
	list := n.find("ul")
	if last := list.Children[len(list.Children)-1]; last.value("data-scripted") != "yes" || list.Script != "copy" {
		t.Error("without a script there is a button that needs one")
	}
	n = b.Section(
		section(&doc.Block{ID: "b1", Kind: doc.Share, Content: doc.Content{Values: map[string]string{"copy": "no"}}}),
	)
	if list := n.find("ul"); list.Script != "" || len(list.Children) != 0 {
		t.Error("a button is there that isn't wanted")
	}
}

// A scroll hint leads to the next section where that can be led to.
func TestScrollHint(t *testing.T) {
	b := builder()
	first, next := section(&doc.Block{ID: "b1", Kind: doc.ScrollHint}), &doc.Section{ID: "s2"}
	b.Neighbours = func(*doc.Section, int) (above, below *doc.Section) { return nil, next }
	if n := b.Section(first); n.find("a") != nil {
		t.Error("it leads to a section that has no anchor")
	}
	next.Anchor = "crew"
	if n := b.Section(first).find("a"); n == nil || n.value("href") != "#crew" ||
		!strings.Contains(n.Children[0].Children[0].Text, "Scroll on") {
		t.Error("it doesn't lead to the next section")
	}
}
