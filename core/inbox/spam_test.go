package inbox

import (
	"fmt"
	"math/rand/v2"
	"os"
	"strings"
	"testing"
)

// What is read as a program's, and what people write that comes near.
func TestSort(t *testing.T) {
	fields := []string{"Name", "Mail", "Words", "More", Trap, Took}
	own := func(pairs ...string) []Answer {
		as := []Answer{{Trap, ""}, {Took, "9000"}}
		for i := 0; i+1 < len(pairs); i += 2 {
			as = append(as, Answer{pairs[i], pairs[i+1]})
		}
		return as
	}
	for _, c := range []struct {
		answers []Answer
		why     string
	}{
		{own("Words", "Is it running? See https://a.example and www.b.example"), ""},
		{own("Words", "https://a.example https://b.example http://c.example"), "plenty"},
		{own("Words", "see <a href=x>this</a>"), "forums"},
		{own("Words", "[url=x]y[/url]"), "forums"},
		{own("Words", "a < b > c, <abbr>"), ""},
		{own("Name", "Cheap", "Words", "cheap ", "More", "CHEAP"), "same in them"},
		{own("Name", "yes", "Words", "yes", "More", "yes"), ""},
		{own("Words", strings.Repeat("boats ", 12)), "over and over"},
		{own("Words", strings.Repeat("boats ", 11)), ""},
		{own("Words", "the boat and the boat and the other boat go to the island where the other one was"), ""},
		{own("Name", "Ada"), ""},
		{[]Answer{{"Name", "Ada"}}, "lacks"},
	} {
		if _, why := Sort(c.answers, fields); (why == "") != (c.why == "") || !strings.Contains(why, c.why) {
			t.Errorf("%v: %q, want %q", c.answers, why, c.why)
		}
	}
}

// kind is how some make up entries, and how many of a hundred do.
type kind struct {
	name  string
	share int
	make  func() []Answer
}

// Ten thousand entries as programs send them and two hundred as people do, made up by rule, some of each like the
// others: how many are sorted right is in docs/spam.md, which this writes with UPDATE=1.
func TestSpamByRule(t *testing.T) {
	r := rand.New(rand.NewPCG(29, 1))
	fields := []string{"Name", "Mail", "Words", Trap, Took}
	pick := func(of ...string) string { return of[r.IntN(len(of))] }
	sentence := func(words []string, n int) string {
		all := make([]string, n)
		for i := range all {
			all[i] = pick(words...)
		}
		return strings.Join(all, " ")
	}
	offers := strings.Fields(
		"best cheap offer now traffic ranking loan crypto casino watches pills click here today free bonus guaranteed income website design followers",
	)
	people := strings.Fields(
		"the boat a bicycle and two children with to from on Saturday morning evening is there room for our trailer sheep please could we thank you island harbour ticket dog late storm",
	)
	russian := strings.Fields("Есть ли место для двух велосипедов в субботу утром на остров спасибо")
	address := func() string {
		return pick("ida", "mo", "per") + fmt.Sprint(r.IntN(999)) + "@" + pick("berg", "lind") + ".example"
	}
	entry := func(name, words, took string) []Answer {
		return []Answer{{"Name", name}, {"Mail", address()}, {"Words", words}, {Trap, ""}, {Took, took}}
	}
	seconds := func() string { return fmt.Sprint(2000 + r.IntN(300_000)) }
	link := func() string {
		return pick(
			"https://",
			"http://www.",
		) + pick(
			"x",
			"y",
		) + fmt.Sprint(
			r.IntN(999),
		) + ".example/" + pick(
			offers...)
	}
	count := func(kinds []kind, n int) (lines []string, apart int) {
		for _, k := range kinds {
			of, found := n*k.share/100, 0
			for range of {
				if _, why := Sort(k.make(), fields); why != "" {
					found++
				}
			}
			lines = append(lines, fmt.Sprintf("| %s | %d | %d |", k.name, of, found))
			apart += found
		}
		return lines, apart
	}
	programs, apart := count([]kind{
		{"posts the fields it knows, without the page", 25, func() []Answer {
			return []Answer{
				{"Name", pick(offers...)},
				{"Mail", address()},
				{"Words", sentence(offers, 20) + " " + link()},
			}
		}},
		{"fills in everything", 20, func() []Answer {
			return []Answer{
				{"Name", pick(offers...)},
				{"Mail", address()},
				{"Words", sentence(offers, 12)},
				{Trap, link()},
				{Took, ""},
			}
		}},
		{
			"fills in at once what is seen",
			15,
			func() []Answer { return entry(pick(offers...), sentence(offers, 15), fmt.Sprint(r.IntN(1900))) },
		},
		{"runs no script", 10, func() []Answer { return entry(pick(offers...), sentence(offers, 15), "") }},
		{"sends fields of other forms", 5, func() []Answer {
			return append(entry(pick(offers...), sentence(offers, 15), seconds()), Answer{"website", link()})
		}},
		{"waits, and has links in plenty", 10, func() []Answer {
			return entry(pick(offers...), sentence(offers, 6)+" "+link()+" "+link()+" "+link(), seconds())
		}},
		{"waits, and writes links as forums take them", 5, func() []Answer {
			return entry(pick(offers...), "[url="+link()+"]"+pick(offers...)+"[/url]", seconds())
		}},
		{
			"waits, and repeats itself",
			3,
			func() []Answer { return entry(pick(offers...), strings.Repeat(pick(offers...)+" ", 15), seconds()) },
		},
		{
			"waits, and writes a few words with one link",
			4,
			func() []Answer { return entry(pick(offers...), sentence(offers, 10)+" "+link(), seconds()) },
		},
		{
			"waits, and writes as people do",
			3,
			func() []Answer { return entry(pick("Ida", "Mo"), sentence(people, 14), seconds()) },
		},
	}, 10_000)
	persons, wrongly := count([]kind{
		{
			"some lines",
			60,
			func() []Answer { return entry(pick("Ida Berg", "Mo Lind"), sentence(people, 4+r.IntN(60)), seconds()) },
		},
		{
			"a word or two",
			15,
			func() []Answer { return entry(pick("Per", "Tove"), sentence(people, 1+r.IntN(3)), seconds()) },
		},
		{
			"with two links",
			10,
			func() []Answer { return entry("Nils Aas", sentence(people, 10)+" "+link()+" "+link(), seconds()) },
		},
		{"in another script", 10, func() []Answer { return entry("Ольга", sentence(russian, 8), seconds()) }},
		{
			"filled in by the browser within two seconds",
			3,
			func() []Answer { return entry("Ida Berg", sentence(people, 3), fmt.Sprint(900+r.IntN(1000))) },
		},
		{"without scripts", 2, func() []Answer { return entry("Ida Berg", sentence(people, 20), "") }},
	}, 200)
	text := fmt.Sprintf(`# What is sorted as a program’s

Entries made up by rule (core/inbox/spam_test.go), each sort as often as is guessed that it comes. How often a network and a form may send, and how
many of a form in a day, come on top (visitors/forms.go) and aren’t in these figures. What is set apart isn’t lost: it lies under Spam and says why.

| as programs send | of | set apart |
|---|---|---|
%s
| **together** | 10000 | **%d** |

| as people send | of | set apart |
|---|---|---|
%s
| **together** | 200 | **%d** |
`, strings.Join(programs, "\n"), apart, strings.Join(persons, "\n"), wrongly)
	const file = "../../docs/spam.md"
	was, err := os.ReadFile(file)
	if os.Getenv("UPDATE") != "" {
		err = os.WriteFile(file, []byte(text), 0o644)
	} else if string(was) != text {
		t.Errorf("docs/spam.md isn't what is sorted now: UPDATE=1 go test ./core/inbox writes it\n%s", text)
	}
	if err != nil {
		t.Error(err)
	}
}
