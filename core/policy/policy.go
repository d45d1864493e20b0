// Package policy says how long things are kept, and how many of them there may be, apart from what
// pages hold (core/doc).
package policy

import "time"

const day = 24 * time.Hour

// How long things are kept.
const (
	Log            = 90 * day  // edits, to be taken back; before that there is a snapshot
	Releases       = 365 * day // publications, to go back to
	DeletedSites   = 30 * day  // to be had back
	DeletedPages   = 30 * day
	DeletedMedia   = 30 * day
	DeletedEntries = 30 * day
	Audit          = 365 * day
	Mails          = 30 * day  // how mails went out
	Works          = 7 * day   // what became of a site that was to be made in the background
	Visits         = 90 * day  // how wide windows are, by page and day
	Counts         = 800 * day // of visits by day: two years can be compared
	Invitations    = 7 * day   // to a site, to be taken
	LostDomain     = 3 * day   // a domain whose records aren't found any more is shown
	TrialEntries   = 30 * day  // what was sent with forms to try them
	LeastEntries   = 1 * day   // what a site can choose for what visitors send
	LongestEntries = 3650 * day
)

// How many there are at most.
const (
	Sites         = 1000 // that somebody owns, those included that can be had back
	MailAddresses = 5    // that entries of a site are sent on to
	MailsADay     = 1000 // of a site: whoever says where they go may not flood somebody
	AnswersADay   = 200  // of those, to whoever sent a form
	CopiesADay    = 3    // of what somebody sent, to one address, whichever sites it was sent to
	EntryNotes    = 200  // beside an entry
	WorksAtOnce   = 5    // sites that are made for somebody in the background, or couldn't be
	Members       = 200  // of a site, with those who are invited
	Fonts         = 60   // files of a site's own
	KeptSections  = 200  // on the Shelf
	KeptHouses    = 50   // house styles that a site keeps beside its own
)

// FewestReleases is how many publications are kept however old they are.
const FewestReleases = 50

// Days is how many whole days a time is.
func Days(d time.Duration) int { return int(d / day) }
