package site

import (
	"crypto/hmac"
	"crypto/sha256"
	"encoding/base64"
	"encoding/binary"
	"time"
)

// Previews signs the addresses of previews, which anybody who has one can open until it
// ends: the application gives them away, the visitors' origin checks them.
type Previews struct{ Secret []byte }

// PreviewLife is how long a preview's address works.
const PreviewLife = 12 * time.Hour

// Token is the site's slug, the time it ends, and a signature over both.
func (p Previews) Token(slug string, ends time.Time) string {
	b := binary.BigEndian.AppendUint64(nil, uint64(ends.Unix()))
	b = append(b, slug...)
	return base64.RawURLEncoding.EncodeToString(append(p.sign(b), b...))
}

// Site gives the slug that a token is for, as long as it is good.
func (p Previews) Site(token string, now time.Time) (string, bool) {
	b, err := base64.RawURLEncoding.DecodeString(token)
	if err != nil || len(b) < 24 || !hmac.Equal(b[:16], p.sign(b[16:])) {
		return "", false
	}
	if now.Unix() > int64(binary.BigEndian.Uint64(b[16:24])) {
		return "", false
	}
	return string(b[24:]), true
}

func (p Previews) sign(b []byte) []byte {
	m := hmac.New(sha256.New, p.Secret)
	m.Write([]byte("preview"))
	m.Write(b)
	return m.Sum(nil)[:16]
}
