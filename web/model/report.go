package model

import (
	"bytes"
	"cmp"
	"encoding/csv"
	"encoding/json"
	"errors"
	"strconv"
	"strings"

	"openplot/core/check"
	"openplot/web/sheet"
)

// told is a finding as files have it.
type told struct {
	Rule     string        `json:"rule"`
	Severity string        `json:"severity"`
	Family   check.Family  `json:"family"`
	Title    string        `json:"title"`
	Says     string        `json:"says,omitempty"`
	Why      string        `json:"why"`
	Standard string        `json:"standard,omitempty"`
	Node     string        `json:"node,omitempty"`
	Other    string        `json:"other,omitempty"`
	Ranges   []check.Range `json:"ranges"`
	Worst    int           `json:"worst"`
	Quiet    string        `json:"quiet,omitempty"`
}

func (c *Checked) tell() (out []told) {
	add := func(f *check.Finding, quiet string) {
		out = append(out, told{
			f.ID, f.Severity.String(), f.Family, f.Title(c.Name), f.Say(c.Name), f.Why, f.Standard, f.Node, f.Other, f.Ranges, f.Worst, quiet,
		})
	}
	for i := range c.Findings {
		add(&c.Findings[i], "")
	}
	for i := range c.Quiet {
		add(&c.Quiet[i].Finding, cmp.Or(c.Quiet[i].Reason, "meant to be so"))
	}
	return out
}

// JSON writes what was found.
func (c *Checked) JSON() ([]byte, error) {
	return json.MarshalIndent(map[string]any{"findings": c.tell()}, "", "  ")
}

// CSV writes what was found, a row for each range of widths (RFC 4180).
func (c *Checked) CSV() ([]byte, error) {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	err := w.Write(
		[]string{
			"severity",
			"family",
			"rule",
			"title",
			"says",
			"from",
			"to",
			"worst",
			"node",
			"other",
			"standard",
			"quiet",
		},
	)
	for _, f := range c.tell() {
		for _, r := range f.Ranges {
			err = errors.Join(err, w.Write([]string{
				f.Severity, string(f.Family), f.Rule, sheet.Cell(f.Title), sheet.Cell(f.Says), strconv.Itoa(r.From), strconv.Itoa(r.To), strconv.Itoa(f.Worst), f.Node, f.Other, f.Standard,
				sheet.Cell(f.Quiet),
			}))
		}
	}
	w.Flush()
	return b.Bytes(), errors.Join(err, w.Error())
}

// SARIF writes what was found on a page at an address, in the Static Analysis Results Interchange
// Format 2.1.0 (OASIS).
func (c *Checked) SARIF(page string) ([]byte, error) {
	level := map[string]string{"broken": "error", "doubtful": "warning", "hint": "note"}
	rules, seen := []any{}, map[string]bool{}
	results := []any{}
	for _, f := range c.tell() {
		if r := check.Find(f.Rule); r != nil && !seen[f.Rule] {
			seen[f.Rule] = true
			rules = append(rules, map[string]any{
				"id": r.ID, "name": r.Name, "shortDescription": map[string]any{"text": r.Name}, "fullDescription": map[string]any{"text": r.Why},
				"defaultConfiguration": map[string]any{"level": level[r.Severity.String()]},
			})
		}
		result := map[string]any{
			"ruleId": f.Rule, "level": level[f.Severity], "message": map[string]any{"text": strings.TrimSpace(f.Title + ". " + f.Says)},
			"locations": []any{map[string]any{
				"physicalLocation": map[string]any{
					"artifactLocation": map[string]any{"uri": strings.TrimPrefix(page, "/") + "/index.html"},
				},
				"logicalLocations": []any{map[string]any{"name": f.Node}},
			}},
			"properties": map[string]any{"ranges": f.Ranges, "worst": f.Worst},
		}
		if f.Quiet != "" {
			result["suppressions"] = []any{map[string]any{"kind": "external", "justification": f.Quiet}}
		}
		results = append(results, result)
	}
	return json.MarshalIndent(map[string]any{
		"$schema": "https://json.schemastore.org/sarif-2.1.0.json", "version": "2.1.0",
		"runs": []any{
			map[string]any{
				"tool":    map[string]any{"driver": map[string]any{"name": "Open Plot", "rules": rules}},
				"results": results,
			},
		},
	}, "", "  ")
}
