//go:build !js

// The part that runs in the browser reads no documents, so encoding/json stays out of it.

package doc

import "encoding/json"

// MarshalJSON writes the page with the format's version.
func (p *Page) MarshalJSON() ([]byte, error) {
	type plain Page
	return json.Marshal(struct {
		Format int `json:"format"`
		*plain
	}{Format, (*plain)(p)})
}

// UnmarshalJSON reads a page of this version's format; others are a FormatError.
func (p *Page) UnmarshalJSON(b []byte) error {
	type plain Page
	in := struct {
		Format int `json:"format"`
		*plain
	}{Format: 1, plain: (*plain)(p)} // pages of the first format didn't say
	if err := json.Unmarshal(b, &in); err != nil {
		return err
	}
	if in.Format != Format {
		return FormatError{in.Format}
	}
	return nil
}

// MarshalJSON writes the house style with the format's version.
func (h House) MarshalJSON() ([]byte, error) {
	type plain House
	return json.Marshal(struct {
		Format int `json:"format"`
		plain
	}{Format, plain(h)})
}

// UnmarshalJSON reads a house style; those of format 1 were the same, and didn't say.
// Newer ones are a FormatError.
func (h *House) UnmarshalJSON(b []byte) error {
	type plain House
	in := struct {
		Format int `json:"format"`
		*plain
	}{plain: (*plain)(h)}
	if err := json.Unmarshal(b, &in); err != nil {
		return err
	}
	if in.Format > Format {
		return FormatError{in.Format}
	}
	return nil
}
